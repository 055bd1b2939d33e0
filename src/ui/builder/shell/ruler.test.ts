import { expect, test } from 'vitest';
import { instantAt, rulerMarks, rulerTicks, snap } from './ruler.ts';

const ZONE = 'Europe/Dublin';
const DAY = 86_400_000;
const scale = (from: string, days: number) => ({
  from: Date.parse(from),
  to: Date.parse(from) + days * DAY,
  width: 800,
});

test('each day is marked once, the day of a clock change too', () => {
  const labels = rulerMarks(scale('2026-10-23T00:00:00Z', 5), ZONE, 'days').map((m) => m.label);
  expect(labels).toEqual(['24 Oct', '25 Oct', '26 Oct', '27 Oct']);
});

test('a day shows hours, a year months', () => {
  const hours = rulerMarks(scale('2026-11-25T00:00:00Z', 1), ZONE, 'hours');
  expect(hours.map((m) => m.label)).toEqual([
    '25 Nov',
    '3:00',
    '6:00',
    '9:00',
    '12:00',
    '15:00',
    '18:00',
    '21:00',
  ]);
  const months = rulerMarks(scale('2026-11-01T00:00:00Z', 120), ZONE, 'months');
  expect(months.map((m) => m.label)).toEqual(['Nov', 'Dec', 'Jan 2027', 'Feb']);
});

test('ticks nearer than 8 px merge, and a count is shown only where it has room', () => {
  const s = scale('2026-11-25T00:00:00Z', 8);
  const at = (px: number): number => s.from + (px / 800) * 8 * DAY;
  const ticks = [100, 103, 112, 300, 304].map((px) => ({ at: at(px), count: 1, names: ['A, B'] }));
  const marks = rulerTicks(ticks, s);
  expect(marks.map((m) => [Math.round(m.x), m.count, m.showsCount])).toEqual([
    [100, 2, false],
    [112, 1, false],
    [300, 2, true],
  ]);
  expect(marks[1]!.words).toBe('A, B');
  expect(snap(306, marks)?.count).toBe(2);
});

test('dragging gives round times of the zone', () => {
  const s = scale('2026-07-01T00:00:00Z', 1);
  expect(new Date(instantAt(401, s, 3_600_000, ZONE)).toISOString()).toBe(
    '2026-07-01T12:00:00.000Z',
  );
});
