import { referenceIds } from '@/core/design/conversion.ts';
import { isReference, targetOf } from '@/core/design/field-values.ts';
import { otherSideId } from '@/core/design/other-sides.ts';
import type { Field } from '@/core/design/field.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import type { Connection } from '../db/connection.ts';
import { asOf } from '../store/as-of.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** The entries that lead to one by a reference of their type, in what was saved of them last. */
export interface Leading {
  type: { key: string; label: string };
  field: { id: string; label: string; otherSide: string | null };
  /** What the order of those that lead here by it is kept under. */
  reference: string;
  /** Whether it is set from here as well: a reference is, a link or what stands in a group is not. */
  isEditable: boolean;
  /** Whether no two entries may lead to the same by it. */
  isOne: boolean;
  total: number;
  /** The first of them, by name. */
  entries: { id: string; name: string; live: boolean }[];
}

const SHOWN = 100;

/** All references that may lead to an entry, with the entries that do. */
export function leadingHere(view: SiteView, actor: Actor, id: string, at: Instant): Leading[] {
  permit(actor, 'read-unpublished', { of: 'entry', id });
  const { connection } = view;
  const own = statement<string>(connection, 'SELECT type FROM entry WHERE id = ?').pluck().get(id);
  const site = view.at(at)?.site;
  const key = site?.types.get(own ?? '')?.key;
  if (!site || key === undefined) return [];
  return [...site.types.values()].flatMap((type) => [
    ...type.fields
      .filter((f) => isReference(f) && (f.types?.includes(key) ?? true))
      .map((field) => leadingBy(view, { type, field, isEditable: true }, id, at)),
    ...otherWays(type.fields)
      .map((field) => leadingBy(view, { type, field, isEditable: false }, id, at))
      .filter(({ total }) => total > 0),
  ]);
}

/** Links, and what leads on within groups. */
function otherWays(fields: readonly Field[], isInGroup = false): Field[] {
  return fields.flatMap((field) => {
    if (field.fields) return otherWays(field.fields, true);
    const leads = targetOf(field)?.of === 'link' || (isInGroup && isReference(field));
    return leads ? [field] : [];
  });
}

/** A real entry with what it leads to by a reference, and how many lead there. */
export interface ReferenceExample {
  from: string;
  to: string[];
  /** How many lead to the first of them. */
  back: number;
}

const TOLD = 3;

/** An entry that leads to another one by a reference of its type; null where none does. */
export function referenceExample(
  view: SiteView,
  actor: Actor,
  { type: typeId, field: fieldId }: { type: string; field: string },
  at: Instant,
): ReferenceExample | null {
  permit(actor, 'read-unpublished', SITE);
  const { connection } = view;
  const type = view.editable(at, false)?.site.types.get(typeId);
  const field = type?.fields.find((f) => f.id === fieldId && isReference(f));
  if (!type || !field) return null;
  return exampleOf(connection, type.id, JSON.stringify(referenceIds(field)));
}

/** `ids`: the fields under which the reference stands, as JSON. */
function exampleOf(connection: Connection, type: string, ids: string): ReferenceExample | null {
  const edges = `FROM reference_edge AS g JOIN entry AS e ON e.id = g.entry
    AND e.newest = g.revision AND e.deleted IS NULL
    WHERE g.field IN (SELECT value FROM json_each(@ids)) AND e.type = @type`;
  const found = statement<{ entry: string; target: string }>(
    connection,
    `SELECT g.entry, g.target ${edges} LIMIT 1`,
  ).get({ ids, type: type });
  if (!found) return null;
  const names = statement<string>(
    connection,
    `SELECT r.name FROM reference_edge AS g JOIN entry AS t ON t.id = g.target
       JOIN revision AS r ON r.entry = t.id AND r.number = t.newest
     WHERE g.entry = @entry AND g.revision = (SELECT newest FROM entry WHERE id = @entry)
       AND g.field IN (SELECT value FROM json_each(@ids)) ORDER BY r.name LIMIT ${TOLD}`,
  ).pluck();
  const back = statement<number>(
    connection,
    `SELECT count(DISTINCT g.entry) ${edges} AND g.target = @target`,
  ).pluck();
  const own = statement<string>(
    connection,
    'SELECT name FROM revision WHERE entry = ? ORDER BY number DESC LIMIT 1',
  ).pluck();
  return {
    from: own.get(found.entry) ?? found.entry,
    to: names.all({ entry: found.entry, ids }),
    back: back.get({ ids, type: type, target: found.target })!,
  };
}

function leadingBy(
  { connection }: SiteView,
  { type, field, isEditable }: { type: ContentType; field: Field; isEditable: boolean },
  id: string,
  at: Instant,
): Leading {
  const from = `FROM reference_edge AS g
    JOIN entry AS e ON e.id = g.entry AND e.newest = g.revision
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    WHERE g.target = @id AND g.field IN (SELECT value FROM json_each(@fields))
      AND e.type = @type AND e.deleted IS NULL`;
  const ids = isEditable ? referenceIds(field) : [field.id];
  const asked = { id, fields: JSON.stringify(ids), type: type.id };
  const rows = statement<{ id: string; name: string; live: number }>(
    connection,
    `SELECT DISTINCT e.id, r.name,
       EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND ${asOf('l', '@at')}) AS live
     ${from} ORDER BY r.name, e.id LIMIT ${SHOWN}`,
  ).all({ ...asked, at });
  const total =
    rows.length < SHOWN
      ? rows.length
      : statement<number>(connection, `SELECT count(DISTINCT e.id) ${from}`).pluck().get(asked)!;
  return {
    type: { key: type.key, label: type.label },
    field: { id: field.id, label: field.label, otherSide: field.otherSide ?? null },
    reference: otherSideId({ type, field }),
    isEditable,
    isOne: field.unique ?? false,
    total,
    entries: rows.map(({ live, ...row }) => ({ ...row, live: live === 1 })),
  };
}
