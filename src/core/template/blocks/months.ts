import { z } from 'zod';
import { defineBlock, label } from '../definition.ts';
import { classes } from '../html.ts';
import { wordsOf } from '../words.ts';
import { escapeHtml } from '../../text.ts';
import { formatPattern } from '../../pattern/date-format.ts';
import { type CalendarDay, daySpan } from '../../time/zone.ts';
import type { Field } from '../../design/field.ts';
import { valueKindOf } from '../../design/field-values.ts';

const isDay = (field: Field): boolean => valueKindOf(field) === 'date';

/** The month of a day as it is written: yyyy-MM-dd. */
const monthOf = (day: CalendarDay): number => Number(day.slice(5, 7));

/** A month's name, and the rest of its cell: its title and its first letter. */
interface MonthName {
  long: string;
  cell: string;
}

/** How a cell begins: plain, filled, this month's, and both. */
const MARKS = ['<i', '<i class="on"', '<i class="now"', '<i class="on now"'];

const NAMES = new Map<string, MonthName[]>();

/** The names of the twelve months, made once a language: lists have them on every card. */
function namesIn(language: string): MonthName[] {
  let names = NAMES.get(language);
  if (!names) {
    names = Array.from({ length: 12 }, (_, i) => {
      const name = (form: string): string =>
        formatPattern(`2001-${String(i + 1).padStart(2, '0')}-01`, form, language, 'UTC');
      const long = name('LLLL');
      return { long, cell: ` title="${escapeHtml(long)}">${escapeHtml(name('LLLLL'))}</i>` };
    });
    NAMES.set(language, names);
  }
  return names;
}

/** Twelve cells of a year: those between two dates are filled, and this month's is marked. */
export const months = defineBlock({
  block: 'months',
  label: 'Months',
  doc: 'Twelve cells of a year: those between two dates are filled, and this month’s is marked.',
  spec: {
    from: z.string(),
    until: z.string(),
    label,
  },
  holds: { from: 'field', until: 'field' },
  compile: ({ from, until, label, style }, c) => {
    const first = c.field(from, 'from', isDay, 'a date');
    const last = c.field(until, 'until', isDay, 'a date');
    const open = `<div${classes('months', style)} role="img" aria-label="`;
    return (scope) => {
      const start = first?.read(scope)[0] as string | undefined;
      const end = (last?.read(scope)[0] as string | undefined) ?? start;
      if (start === undefined || end === undefined) return '';
      const today = daySpan(scope.at, scope.zone);
      scope.validity.tell(today.to);
      const now = monthOf(today.day);
      const a = monthOf(start);
      const b = monthOf(end);
      const names = namesIn(scope.language);
      let cells = '';
      for (let m = 1; m <= 12; m++) {
        const filled = a <= b ? a <= m && m <= b : m >= a || m <= b;
        const open = MARKS[(filled ? 1 : 0) + (m === now ? 2 : 0)]!;
        cells += open + names[m - 1]!.cell;
      }
      const [begins, ends] = [names[a - 1]!.long, names[b - 1]!.long];
      const span = a === b ? begins : wordsOf(scope.language).fromTo(begins, ends);
      const words = label ? `${label}: ${span}` : span;
      return `${open}${escapeHtml(words)}">${cells}</div>`;
    };
  },
  example: {
    block: { block: 'months', from: 'sow', until: 'sow', label: 'Sow' },
    html: '<div class="months" role="img" aria-label="Sow: March"><i title="January">J</i><i title="February">F</i><i class="on" title="March">M</i><i title="April">A</i><i title="May">M</i><i title="June">J</i><i class="now" title="July">J</i><i title="August">A</i><i title="September">S</i><i title="October">O</i><i title="November">N</i><i title="December">D</i></div>',
  },
});
