import { elsewhereOf, literalsOf } from '@/core/design/listing-spec.ts';
import { displayValues } from '@/core/design/field-values.ts';
import type { DisplayWorld } from '@/core/design/kinds/definition.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import { withinSentence } from '@/core/design/words.ts';
import { type Column, type ListingRow, cell } from '@/core/listing/columns.ts';
import type { Others } from '@/core/listing/evaluate.ts';
import { OPERATOR_WORDS } from '@/core/listing/operators.ts';
import type { Condition, Through } from '@/core/listing/plan.ts';
import { formatStyled } from '@/core/pattern/date-format.ts';
import type { SiteReader } from '@/core/site/reader.ts';

/** A condition as it reads in the sentence: "stock is more than 0". */
export function inWords(condition: Condition, world: DisplayWorld): string {
  const { column, op, spec, through } = condition;
  const asked = through?.[0]?.condition.column ?? column;
  const label = through ? `${column.label} › ${asked.label}` : column.label;
  const value = valueInWords(asked, spec, world);
  return `${withinSentence(label, world.language)} ${OPERATOR_WORDS[op]}${value}`;
}

function valueInWords(
  { field, target, family }: Column,
  spec: Condition['spec'],
  world: DisplayWorld,
): string {
  const elsewhere = elsewhereOf(spec);
  if (elsewhere)
    return 'page' in elsewhere ? ` the page’s ${elsewhere.page}` : ` the site’s ${elsewhere.site}`;
  const shown = (value: unknown): string =>
    field && (target || family === 'choice')
      ? kindOf(field).display(value, field, world)
      : String(value);
  const values = literalsOf(spec);
  const joint = spec.op === 'between' ? ' and ' : ', ';
  return values.length === 0 ? '' : ` ${values.map(shown).join(joint)}`;
}

/** What an entry has where a condition wants something else: "it is 9". */
export function actualOf(
  { column, through }: Condition,
  row: ListingRow,
  { world, others, reader }: { world: DisplayWorld; others: Others; reader: SiteReader },
): string | null {
  if (column.target?.of === 'people')
    return `it is by ${reader.person(row.author ?? '') || 'nobody'}`;
  if (column.family === 'identity') return null;
  if (column.isAbsent) return 'it has none';
  const shown = through
    ? shownThrough(through, cell(row, column) as string[], { world, others })
    : columnShown(column, row, world);
  if (shown.trim() === '') return 'it is blank';
  return `it is ${shown.length > 80 ? `${shown.slice(0, 80)}…` : shown}`;
}

function shownThrough(
  through: readonly Through[],
  entries: readonly string[],
  { world, others }: { world: DisplayWorld; others: Others },
): string {
  const rows = entries.flatMap((id) => others.row(id) ?? []);
  const shown = rows.flatMap((row) => {
    const led = through.find(({ type }) => type.id === row.type);
    return led ? columnShown(led.condition.column, row, world) : [];
  });
  return shown.filter((text) => text.trim() !== '').join(', ');
}

/** What a row has of a column, in words; "" where it is blank. */
export function columnShown(column: Column, row: ListingRow, world: DisplayWorld): string {
  if (column.field) return displayValues(row.values, column.field, world);
  const instant = cell(row, column);
  if (typeof instant !== 'number') return '';
  return formatStyled(instant, 'medium', world.language, world.zone);
}
