import type { Values } from '@/core/design/values.ts';
import { valuesOf } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { TriedOn } from './tried-on.ts';
import { newestValues, prospectOf } from './preview.ts';
import type { SiteView } from './site-view.ts';

/** Where a specimen would stand in a further language. */
export interface PathElsewhere {
  /** Key of the language. */
  key: string;
  label: string;
  pattern: string;
  path: string | null;
  /** Whether the entry has words in it; else those of the site's own language stand in. */
  isOwn: boolean;
}

/** Where an entry that a design is tried on would stand in each further language of the site. */
export function pathsElsewhere(
  view: SiteView,
  { languages }: CompiledSite,
  { id, values, standIn, entry }: TriedOn,
  at: Instant,
): PathElsewhere[] {
  return languages.slice(1).flatMap((site): PathElsewhere[] => {
    const type = site.types.get(entry.type.id);
    const { edition, site: settings } = site.design;
    if (!type || !edition || type.address === undefined) return [];
    const said: Values = standIn ? {} : (newestValues(view, type, id, at, settings.language) ?? {});
    const naming = type.fields.find(({ key }) => key === type.naming);
    const isOwn = naming !== undefined && valuesOf(said, naming.id).length > 0;
    const draft = { id, type, values: isOwn ? said : values, author: entry.author };
    const { path } = prospectOf(view, site, draft, at);
    const { key, label } = edition;
    return [{ key, label, pattern: type.address, path, isOwn }];
  });
}
