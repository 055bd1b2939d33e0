import type { DisplayWorld } from '@/core/design/kinds/definition.ts';
import type { Instant } from '@/core/time/interval.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** What showing values in tables looks up, as of an instant. */
export function displayWorld(view: SiteView, at: Instant): DisplayWorld {
  const { zone = 'UTC', language = 'en' } = view.at(at)?.site.design.site ?? {};
  return {
    zone,
    language,
    nameOf: (mention) => {
      if (mention.of === 'entry') return nameOfEntry(view, mention.key);
      return mention.of === 'subject'
        ? (view.subjects.get(mention.set, mention.key)?.name ?? null)
        : null;
    },
  };
}

/** The name of an entry's newest revision; null where there is none. */
function nameOfEntry({ connection }: SiteView, id: string): string | null {
  const sql = 'SELECT name FROM revision WHERE entry = ? ORDER BY number DESC LIMIT 1';
  return statement<string>(connection, sql).pluck().get(id) ?? null;
}

/** The name of an entry's newest revision; its id where there is none. */
export function entryName(view: SiteView, id: string): string {
  return nameOfEntry(view, id) ?? id;
}
