import { type SettingValues, settingsOf } from '@/core/design-edit/shared-settings.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import type { KnownType, OutlineWorld } from '@/core/outline/read.ts';
import { ruleWords } from '@/core/timing/words.ts';
import type { Connection } from '../db/connection.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { statement } from '../store/statement.ts';
import type { Looking } from './clock.ts';
import type { SiteView } from './site-view.ts';

/** A content type, as a line of the table of all. */
export interface TypeLine {
  id: string;
  key: string;
  label: string;
  description: string;
  address: string | null;
  /** Whether there is one entry of it and no more. */
  single: boolean;
  fields: number;
  /** What the template and the card are called; null where there are automatic ones. */
  template: string | null;
  card: string | null;
  /** What its timing rules do, a sentence each. */
  timing: string[];
  /** What can be set for several types at once, by property. */
  settings: SettingValues;
  /** How many entries there are of it, deleted ones left out; 1,001 for more than 1,000. */
  entries: number;
}

/** All content types, and what an outline of further ones is read against. */
export interface TypesDetail {
  types: TypeLine[];
  world: OutlineWorld;
  /** Ids that new types and subject sets cannot have: content has been stored under them. */
  taken: string[];
}

/** All types of the working design, in the past as they were released; null while no site is. */
export function typesDetail(
  view: SiteView,
  actor: Actor,
  { at, past }: Looking,
): TypesDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const design = view.editable(at, past)?.site.design;
  if (!design) return null;
  const { connection } = view;
  const used = statement<string>(
    connection,
    'SELECT DISTINCT type FROM entry UNION SELECT DISTINCT "set" FROM subject',
  ).pluck();
  return {
    types: design.types.map((type) => lineOf(type, design, connection)),
    world: worldOf(design),
    taken: used.all(),
  };
}

function lineOf(type: ContentType, { templates }: Design, connection: Connection): TypeLine {
  const { id, key, label, description, address, single, fields } = type;
  const called = (template: string | undefined): string | null =>
    templates.find((t) => t.key === template)?.label ?? null;
  return {
    ...{ id, key, label, description },
    address: address ?? null,
    single: single ?? false,
    fields: fields.length,
    template: called(type.template),
    card: called(type.card),
    timing: (type.timing ?? []).map((rule) => ruleWords(rule, type)),
    settings: settingsOf(type),
    entries: entriesOf(connection, id),
  };
}

function worldOf({ site, types, subjectSets }: Design): OutlineWorld {
  return {
    site: { language: site.language },
    types: types.map(({ id, key, label, plural, address, fields }): KnownType => {
      const names = fields.map((f) => ({ id: f.id, key: f.key, label: f.label }));
      return { id, key, label, plural, address, fields: names };
    }),
    subjectSets: subjectSets.map(({ id, key, kind }) => ({ id, key, kind })),
  };
}

/** How many entries there are of a type, deleted ones left out: more than 1,000 are not counted. */
export function entriesOf(connection: Connection, type: string): number {
  const sql = `SELECT count(*) FROM
    (SELECT 1 FROM entry WHERE type = ? AND deleted IS NULL LIMIT 1001)`;
  return statement<number>(connection, sql).pluck().get(type)!;
}
