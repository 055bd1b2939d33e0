import { calendarDay } from '../../time/zone.ts';
import {
  type DateValue,
  checkDatePattern,
  formatPattern,
  formatStyled,
  isDateStyle,
} from '../date-format.ts';
import { one } from '../types.ts';
import { DATES, type PatternFunction } from './definition.ts';

function checkStyle(style: string | number, inAddress: boolean): string | null {
  const text = String(style);
  if (!isDateStyle(text)) return checkDatePattern(text, inAddress);
  return inAddress
    ? `The style "${text}" may write names, and an address takes numeric dates only.`
    : null;
}

export const date: PatternFunction = {
  name: 'date',
  doc: 'A date, or the day of a date-time, in a style (short, medium, long, full); or by a Unicode TR35 pattern such as "d MMMM yyyy, HH:mm".',
  parameters: [
    { name: 'date', kinds: DATES, takes: 'one' },
    { name: 'style', kinds: ['text'], takes: 'one', literal: checkStyle },
  ],
  returns: () => one('text'),
  call: ([value, style], { language, zone }) => {
    const text = String(style);
    if (isDateStyle(text))
      return formatStyled(
        typeof value === 'number' ? calendarDay(value, zone) : String(value),
        text,
        language,
        zone,
      );
    return formatPattern(value as DateValue, text, language, zone);
  },
  example: {
    pattern: '{date(sow, "d MMMM yyyy")}',
    fields: { sow: { kind: 'date', value: '2026-03-09' } },
    result: '9 March 2026',
  },
};
