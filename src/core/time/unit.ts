import { Temporal } from 'temporal-polyfill';
import type { CalendarDay } from './zone.ts';

/**
 * The week (from Monday, ISO 8601), month or year in which a calendar day lies: its first day, and
 * the first one after it.
 */
export function unitOf(
  unit: 'week' | 'month' | 'year',
  day: CalendarDay,
): { from: CalendarDay; to: CalendarDay } {
  const date = Temporal.PlainDate.from(day);
  const from =
    unit === 'week'
      ? date.subtract({ days: date.dayOfWeek - 1 })
      : date.with(unit === 'month' ? { day: 1 } : { month: 1, day: 1 });
  return { from: from.toString(), to: from.add({ [`${unit}s`]: 1 }).toString() };
}
