import { type PartPath, partAt, sortWord } from '@/core/design-edit/parts.ts';
import { type Readers, readersOf } from '@/core/design-edit/readers.ts';
import { convert } from '@/core/design/conversion.ts';
import type { Field } from '@/core/design/field.ts';
import { valuesWithin } from '@/core/design/fields-within.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { statement } from '../store/statement.ts';
import { valuesOfType } from '../store/stored-values.ts';
import type { Looking } from './clock.ts';
import { displayWorld } from './display.ts';
import type { SiteView } from './site-view.ts';

/** What becomes of the values of a field that is to hold something else, or to go. */
export interface ConversionOutcome {
  /** How many entries hold a value, in their newest version. */
  filled: number;
  /** How many of them would lose all or some of it from sight. */
  losing: number;
  /** The first of those, with what has no place; it stays stored. */
  lost: { id: string; name: string; value: string }[];
  /** What else reads the field. */
  readers: Readers;
  /** The values there are, most used first. */
  values: { value: string; count: number }[];
}

const SHOWN = 20;
const VALUES = 200;

interface Row {
  id: string;
  name: string;
  json: string;
}

/** What the values of a field, by its path, come to in another; null where there is no such field. */
export function conversionOutcome(
  view: SiteView,
  actor: Actor,
  { part, to }: { part: PartPath; to: Field | null },
  { at, past }: Looking,
): ConversionOutcome | null {
  permit(actor, 'read-unpublished', SITE);
  const design = view.editable(at, past)?.site.design;
  const field = design && (partAt(design, part) as unknown as Field | undefined);
  if (!design || !field || sortWord(part) !== 'field') return null;
  const [, typeId, ...words] = part.split('/');
  const path = words.filter((_, i) => i % 2 === 1);
  const world = displayWorld(view, at);
  const shown = (value: unknown): string => kindOf(field).display(value, field, world);
  const readers = readersOf(design, part);
  const found: ConversionOutcome = { filled: 0, losing: 0, lost: [], readers, values: [] };
  const counts = new Map<string, number>();
  const only = { fields: [partAt(design, `types/${typeId}/fields/${path[0]}`)] as never };
  for (const { id, name, json } of rowsOf(view, typeId!)) {
    const held = valuesWithin(valuesOfType(only, json, design.site), path);
    if (held.length === 0) continue;
    found.filled += 1;
    for (const one of held.flat()) {
      const words = kindOf(field).asText(one, field, design.site.zone);
      if (words !== null) counts.set(words, (counts.get(words) ?? 0) + 1);
    }
    const lost = held.flatMap((all) =>
      to === null ? all : convert(all, field, to, design.site).lost,
    );
    if (lost.length === 0) continue;
    found.losing += 1;
    if (found.lost.length < SHOWN) found.lost.push({ id, name, value: lost.map(shown).join(', ') });
  }
  found.values = [...counts]
    .map(([value, count]) => ({ value, count }))
    .sort((a, b) => b.count - a.count)
    .slice(0, VALUES);
  return found;
}

function rowsOf(view: SiteView, type: string): Iterable<Row> {
  const sql = `SELECT e.id, r.name, r."values" AS json FROM entry AS e
      JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
    WHERE e.type = ? AND e.deleted IS NULL ORDER BY r.name, e.id`;
  return statement<Row>(view.connection, sql).iterate(type);
}

/** What else reads a part of the working design; null where it is gone. */
export function readersNow(
  view: SiteView,
  actor: Actor,
  { part }: { part: string },
  { at, past }: Looking,
): Readers | null {
  permit(actor, 'read-unpublished', SITE);
  const design = view.editable(at, past)?.site.design;
  return design && partAt(design, part) ? readersOf(design, part) : null;
}
