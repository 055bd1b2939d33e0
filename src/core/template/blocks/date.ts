import type { CompileBlock } from '../context.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { formatStyled, isDateStyle } from '../../pattern/date-format.ts';
import { isoInZone } from '../../time/zone.ts';
import { valuesOf } from '../../design/values.ts';

/** A date or date-time as a `time` element, with a label before it. */
export const date: CompileBlock<'date'> = ({ field, format, label, style }, c) => {
  const bound = c.field(field, 'field', ['date', 'datetime']);
  const written = c.pattern(`{date(${field}, ${JSON.stringify(format)})}`, 'format');
  const withTime = bound?.kind === 'datetime' && isDateStyle(format) ? format : null; // a style alone would leave the time out
  const before = label ? `<span class="label">${escapeHtml(label)}</span> ` : '';
  const open = `<p${classes('date', style)}>${before}`;
  return (scope) => {
    const value = valuesOf(scope.own?.values ?? {}, bound?.id ?? '')[0];
    const html =
      withTime !== null && typeof value === 'number'
        ? escapeHtml(formatStyled(value, withTime, scope.language, scope.zone))
        : written(scope);
    if (html === null) return '';
    const machine = typeof value === 'number' ? isoInZone(value, scope.zone) : String(value);
    return `${open}<time datetime="${escapeHtml(machine)}">${html}</time></p>`;
  };
};
