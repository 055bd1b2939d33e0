import { fingerprint } from '@/core/fingerprint.ts';
import { isDerived, workedOutBy } from '@/core/design/computed.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Connection } from '../../db/connection.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { type DesignsAhead, sitesOf } from '../designs-ahead.ts';
import { goneTypes } from '../earlier-designs.ts';
import { statement } from '../statement.ts';
import { typesOf } from '../types-ahead.ts';
import { fillNewest } from './fill-newest.ts';
import { type ReadBy, noteNewest } from './write-newest.ts';

/** Raised whenever what is noted is made otherwise than before. */
const NOTED_AS_OF = 1;

/** Designs whose types were found noted as they should be, by connection. */
const ENSURED = new WeakMap<Connection['driver'], { sites: CompiledSite[]; by: ReadBy }>();

/** How entries are noted, and the ids of types of which all were noted anew. */
export interface EnsuredNewest {
  by: ReadBy;
  anew: Set<string>;
}

/**
 * Notes what the content table reads anew of all entries of the types that are noted otherwise than
 * designs want it.
 */
export function ensureNewest(connection: Connection, designs: DesignsAhead): EnsuredNewest {
  const sites = sitesOf(designs);
  const known = ENSURED.get(connection.driver);
  if (known && known.sites.every((site, i) => site === sites[i]) && !sites[known.sites.length])
    return { by: known.by, anew: new Set() };
  const by = readBy(designs);
  const forms = wronglyNoted(connection, by);
  const gone = goneTypes(connection, by.types, 'newest');
  const types = new Map([...by.types, ...gone.map((type) => [type.id, type] as const)]);
  const note = noteNewest(connection, { ...by, types });
  const ids = statement<string>(connection, 'SELECT id FROM entry WHERE type = ?').pluck();
  const noted = statement<number>(connection, 'SELECT count(*) FROM newest WHERE type = ?').pluck();
  const keep = statement(
    connection,
    'INSERT INTO meta (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value',
  );
  for (const [type, form] of [...forms, ...gone.map(({ id }) => [id, ''] as const)]) {
    const [all, known] = [ids.all(type), noted.get(type)!];
    if (known === 0) fillNewest(connection, { ...by, types }, all);
    else for (const id of all) note(id);
    keep.run(`newest:${type}`, form);
  }
  // What this transaction made goes with it where it is not kept.
  if (forms.length + gone.length === 0) ENSURED.set(connection.driver, { sites, by });
  return { by, anew: new Set(forms.map(([type]) => type)) };
}

/** Whether what the content table reads is noted as designs want it. */
export function isNewestNoted(connection: Connection, designs: DesignsAhead): boolean {
  return wronglyNoted(connection, readBy(designs)).length === 0;
}

function readBy(designs: DesignsAhead): ReadBy {
  const types = new Map(typesOf(sitesOf(designs)).map((type) => [type.id, type]));
  return { types, site: designs.first.design.site };
}

/** The types that are noted otherwise than they should be, with how they should be. */
function wronglyNoted(connection: Connection, { types, site }: ReadBy): [string, string][] {
  const noted = statement<string>(connection, 'SELECT value FROM meta WHERE key = ?').pluck();
  return [...types].flatMap(([id, type]): [string, string][] => {
    const form = formOf(type, site);
    return noted.get(`newest:${id}`) === form ? [] : [[id, form]];
  });
}

/** All that decides what is noted of an entry besides its newest revision. */
function formOf({ fields, naming }: ContentType, site: ReadBy['site']): string {
  const parts = fields.map((field) => [
    field.id,
    field.kind,
    field.many,
    field.replaces ?? null,
    (field.fields ?? []).map(({ id, kind }) => [id, kind]),
    isDerived(field) ? workedOutBy(field, fields) : null,
  ]);
  const named = fields.find(({ key }) => key === naming)?.id ?? null;
  return fingerprint(JSON.stringify([NOTED_AS_OF, parts, named, site.zone, site.language]));
}
