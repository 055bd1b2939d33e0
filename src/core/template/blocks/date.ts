import { z } from 'zod';
import { defineBlock, label } from '../definition.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { formatStyled, isDateStyle } from '../../pattern/date-format.ts';
import { isoInZone } from '../../time/zone.ts';
import { valueKindOf } from '../../design/field-values.ts';
import type { ValueKind } from '../../pattern/types.ts';

const DATES: readonly ValueKind[] = ['date', 'datetime'];

/** A date or date-time, with a label before it. */
export const date = defineBlock({
  block: 'date',
  label: 'Date',
  doc: 'A date or date-time, with a label before it.',
  spec: {
    field: z.string(),
    format: z.string().default('medium'),
    label,
  },
  holds: { field: 'field' },
  compile: ({ field, format, label, style }, c) => {
    const bound = c.field(
      field,
      'field',
      (f) => DATES.includes(valueKindOf(f)),
      'a date or date-time',
    );
    const written = c.pattern(`{date(${field}, ${JSON.stringify(format)})}`, 'format');
    const withTime =
      bound && valueKindOf(bound.field) === 'datetime' && isDateStyle(format) ? format : null; // a style alone would leave the time out
    const before = label ? `<span class="label">${escapeHtml(label)}</span> ` : '';
    const open = `<p${classes('date', style)}>${before}`;
    return (scope) => {
      const value = bound?.read(scope)[0];
      const html =
        withTime !== null && typeof value === 'number'
          ? escapeHtml(formatStyled(value, withTime, scope.language, scope.zone))
          : written(scope);
      if (html === null) return '';
      const machine = typeof value === 'number' ? isoInZone(value, scope.zone) : String(value);
      return `${open}<time datetime="${escapeHtml(machine)}">${html}</time></p>`;
    };
  },
  example: {
    block: { block: 'date', field: 'sow', format: 'd MMMM', label: 'Sow' },
    html: '<p class="date"><span class="label">Sow</span> <time datetime="2026-03-09">9 March</time></p>',
  },
});
