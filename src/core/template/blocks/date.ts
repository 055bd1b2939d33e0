import type { CompileBlock } from '../context.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { isoInZone } from '../../time/zone.ts';
import { valuesOf } from '../../design/values.ts';

/** A date or date-time as a `time` element, with a label before it. */
export const date: CompileBlock<'date'> = ({ field, format, label, style }, c) => {
  const bound = c.field(field, 'field', ['date', 'datetime']);
  const words = c.pattern(`{date(${field}, ${JSON.stringify(format)})}`, 'format');
  const before = label ? `<span class="label">${escapeHtml(label)}</span> ` : '';
  const open = `<p${classes('date', style)}>${before}`;
  return (scope) => {
    const value = valuesOf(scope.own?.values ?? {}, bound?.id ?? '')[0];
    const html = words(scope);
    if (html === null) return '';
    const machine = typeof value === 'number' ? isoInZone(value, scope.zone) : String(value);
    return `${open}<time datetime="${escapeHtml(machine)}">${html}</time></p>`;
  };
};
