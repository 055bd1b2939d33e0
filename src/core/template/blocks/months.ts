import type { CompileBlock } from '../context.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { dayParts, daySpan } from '../../time/zone.ts';
import { valuesOf } from '../../design/values.ts';

/** Twelve cells of a year: those between two dates are filled, and this month's is marked. */
export const months: CompileBlock<'months'> = ({ from, until, label, style }, c) => {
  const first = c.field(from, 'from', ['date']);
  const last = c.field(until, 'until', ['date']);
  const open = `<div${classes('months', style)} role="img" aria-label="`;
  return (scope) => {
    const start = valuesOf(scope.own?.values ?? {}, first?.id ?? '')[0] as string | undefined;
    const end =
      (valuesOf(scope.own?.values ?? {}, last?.id ?? '')[0] as string | undefined) ?? start;
    if (start === undefined || end === undefined) return '';
    const today = daySpan(scope.at, scope.zone);
    scope.validity.tell(today.to);
    const now = dayParts(today.day).month;
    const [a, b] = [dayParts(start).month, dayParts(end).month];
    let cells = '';
    for (let m = 1; m <= 12; m++) {
      const filled = a <= b ? a <= m && m <= b : m >= a || m <= b;
      cells += `<i${filled || m === now ? ` class="${[filled ? 'on' : '', m === now ? 'now' : ''].filter(Boolean).join(' ')}"` : ''}></i>`;
    }
    const name = (m: number): string =>
      new Intl.DateTimeFormat(scope.language, { month: 'long', timeZone: 'UTC' }).format(
        Date.UTC(2001, m - 1, 1),
      );
    const words = `${label ? `${label}: ` : ''}${name(a)}${a === b ? '' : ` to ${name(b)}`}`;
    return `${open}${escapeHtml(words)}">${cells}</div>`;
  };
};
