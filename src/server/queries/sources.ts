import { type Mapping, mappingSpec } from '@/core/intake/mapping.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** What content was brought in from, and what it can become. */
export interface SourcesDetail {
  sources: {
    id: string;
    name: string;
    /** Its type goes by its key. */
    mapping: Mapping;
    typeLabel: string;
    person: string;
    at: Instant;
    entries: number;
  }[];
  types: ContentType[];
}

/** What content was brought in from, the last first; null where there is no site. */
export function sourcesDetail(view: SiteView, actor: Actor, at: Instant): SourcesDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const site = view.at(at)?.site;
  if (!site) return null;
  const rows = statement<{
    id: string;
    name: string;
    mapping: string;
    person: string;
    at: Instant;
    entries: number;
  }>(
    view.connection,
    `SELECT s.*, (SELECT count(*) FROM brought AS b WHERE b.source = s.id) AS entries
       FROM source AS s ORDER BY s.at DESC LIMIT 100`,
  ).all();
  return {
    types: site.design.types,
    sources: rows.flatMap(({ mapping, person, ...row }) => {
      const stored = mappingSpec.parse(JSON.parse(mapping));
      const type = site.types.get(stored.type);
      if (!type) return [];
      const own = { ...stored, type: type.key };
      const name = personName(view.connection, person);
      return [{ ...row, mapping: own, typeLabel: type.label, person: name }];
    }),
  };
}
