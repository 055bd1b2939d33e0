import { type FieldChange, compareValues } from '@/core/content/compare.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, permit } from '../permit.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import { valuesOfType } from '../store/stored-values.ts';
import { displayWorld } from './display.ts';
import type { SiteView } from './site-view.ts';

/** A version of an entry, with when it was live. */
export interface Version {
  number: number;
  saved: Instant;
  author: string;
  note: string;
  live: { from: Instant; to: Instant | null }[];
}

/** What two versions of an entry have otherwise, and all that the earlier one holds. */
export interface VersionChanges {
  changes: FieldChange[];
  /** By field id, as a form edits them. */
  values: Values;
}

/** The most that are listed; an entry with more shows its newest. */
const MOST = 500;

/** The versions of an entry, the newest first. */
export function versions(view: SiteView, actor: Actor, id: string): Version[] {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const { connection } = view;
  const rows = statement<Omit<Version, 'live'>>(
    connection,
    `SELECT number, saved, author, note FROM revision WHERE entry = ?
       ORDER BY number DESC LIMIT ${MOST}`,
  ).all(id);
  const spans = statement<{ from: Instant; to: Instant | null; revision: number }>(
    connection,
    `SELECT starts AS "from", ends AS "to", revision FROM live_interval WHERE entry = ?
       ORDER BY starts`,
  ).all(id);
  return rows.map((row) => ({
    ...row,
    author: personName(connection, row.author) ?? '',
    live: spans
      .filter(({ revision }) => revision === row.number)
      .map(({ from, to }) => ({ from, to })),
  }));
}

/** How one version of an entry differs from another; null where one of them is not there. */
export function versionChanges(
  view: SiteView,
  actor: Actor,
  { id, before, after }: { id: string; before: number; after: number },
  at: Instant,
): VersionChanges | null {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const sql = `SELECT e.type, r."values" AS json FROM entry AS e JOIN revision AS r ON r.entry = e.id
    WHERE e.id = ? AND r.number = ?`;
  const read = statement<{ type: string; json: string }>(view.connection, sql);
  const [was, is] = [read.get(id, before), read.get(id, after)];
  const site = view.at(at)?.site;
  const type = was && site?.types.get(was.type);
  if (!was || !is || !type || !site) return null;
  const values = held(type, was.json, site);
  return {
    values: Object.fromEntries(type.fields.map((f) => [f.id, values[f.id] ?? null])),
    changes: compareValues(type.fields, values, held(type, is.json, site), displayWorld(view, at)),
  };
}

function held(type: ContentType, json: string, { design }: CompiledSite): Values {
  return valuesOfType(type, json, design.site);
}
