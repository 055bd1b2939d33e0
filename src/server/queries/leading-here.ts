import { referenceIds } from '@/core/design/conversion.ts';
import { isReference } from '@/core/design/field-values.ts';
import type { Field } from '@/core/design/field.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { statement } from '../store/statement.ts';
import type { SiteView } from './site-view.ts';

/** The entries that lead to one by a reference of their type, in what was saved of them last. */
export interface Leading {
  type: { key: string; label: string };
  field: { id: string; label: string; otherSide: string | null };
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
  return [...site.types.values()].flatMap((type) =>
    type.fields
      .filter((f) => isReference(f) && (f.types?.includes(key) ?? true))
      .map((field) => leadingBy(view, { type, field }, id, at)),
  );
}

function leadingBy(
  { connection }: SiteView,
  { type, field }: { type: ContentType; field: Field },
  id: string,
  at: Instant,
): Leading {
  const from = `FROM reference_edge AS g
    JOIN entry AS e ON e.id = g.entry AND e.newest = g.revision
    JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    WHERE g.target = @id AND g.field IN (SELECT value FROM json_each(@fields))
      AND e.type = @type AND e.deleted IS NULL`;
  const asked = { id, fields: JSON.stringify(referenceIds(field)), type: type.id };
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
    isOne: field.unique ?? false,
    total,
    entries: rows.map(({ live, ...row }) => ({ ...row, live: live === 1 })),
  };
}
