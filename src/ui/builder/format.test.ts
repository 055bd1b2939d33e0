import fc from 'fast-check';
import { expect, test } from 'vitest';
import { parseInstant } from '@/core/time/parse.ts';
import { entryHref, localToInstant, localValue, readInstant } from './format.ts';

const ZONES = ['Europe/Dublin', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'UTC'];

test('local times are read as the server reads them, in gaps and doubled hours too', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: Date.UTC(2020, 0), max: Date.UTC(2035, 0) }),
      fc.constantFrom(...ZONES),
      (at, zone) => {
        const local = localValue(at, zone);
        expect(localToInstant(local, zone)).toBe(parseInstant(local, zone));
      },
    ),
  );
  for (const local of ['2026-03-29T01:30', '2026-10-25T01:30', '2026-10-25T02:00'])
    expect(localToInstant(local, 'Europe/Dublin')).toBe(parseInstant(local, 'Europe/Dublin'));
  for (const local of ['2026-10-04T02:15', '2026-04-05T01:45'])
    expect(localToInstant(local, 'Australia/Lord_Howe')).toBe(
      parseInstant(local, 'Australia/Lord_Howe'),
    );
});

test('the address bar takes exact instants, local ones and bare dates', () => {
  for (const text of [
    '2026-03-12T08:00:00Z',
    '2026-03-12T08:00:00+02:00',
    '2026-07-12T08:00',
    '2026-07-12',
  ])
    expect(readInstant(text, 'Europe/Dublin')).toBe(parseInstant(text, 'Europe/Dublin'));
  expect(readInstant('soon', 'UTC')).toBe(null);
});

test('an entry’s screen is found whatever its id holds', () => {
  expect(entryHref('notes#000001')).toBe('/build/content/notes%23000001');
  expect(
    new URL(entryHref('a/100%?b c'), 'http://x').pathname
      .split('/')
      .slice(3)
      .map(decodeURIComponent)
      .join('/'),
  ).toBe('a/100%?b c');
});
