import { numbers } from './pictures.ts';

const FIRST = [
  'Amber',
  'Bramble',
  'Copper',
  'Dusky',
  'Early',
  'Field',
  'Golden',
  'Harbour',
  'Ivory',
  'Jolly',
  'Kitchen',
  'Lowland',
  'Marsh',
  'North',
  'Orchard',
  'Plain',
  'Quiet',
  'River',
  'Stony',
  'Tall',
];
const SECOND = [
  'Lantern',
  'Wren',
  'Kettle',
  'Candle',
  'Ballast',
  'Feather',
  'Morning',
  'Keeper',
  'Runner',
  'Button',
  'Harvest',
  'Thimble',
  'Ribbon',
  'Anchor',
  'Whistle',
];
const KINDS = ['beans', 'peas', 'carrots', 'beets', 'tomatoes', 'squashes', 'leaves'];
const EASE = ['easy', 'some-care', 'demanding'];
const TRAITS = ['climbing', 'dwarf', 'hardy', 'keeps-well', 'for-pots', 'good-for-drying'];

/** Rows of invented varieties for measurements; the same every time. */
export function manyVarieties(count: number): Record<string, string | number>[] {
  const random = numbers('many');
  const pick = <T>(list: T[]): T => list[Math.floor(random() * list.length)]!;
  return Array.from({ length: count }, (_, i) => {
    const from = Math.floor(random() * 330);
    const sow = new Date(Date.UTC(2026, 0, 1) + from * 86_400_000).toISOString().slice(0, 10);
    const until = new Date(
      Date.UTC(2026, 0, 1) + (from + 20 + Math.floor(random() * 60)) * 86_400_000,
    )
      .toISOString()
      .slice(0, 10);
    return {
      'entry.id': `many-${String(i).padStart(6, '0')}`,
      'entry.live': `2025-01-01T00:${String(i % 60).padStart(2, '0')}:00Z/`,
      title: `${pick(FIRST)} ${pick(SECOND)} ${i}`,
      latinName: 'Exempla marrowdalensis',
      summary: `Number ${i} of the large sample, sown for measuring.`,
      family: pick(KINDS),
      traits: `${pick(TRAITS)};${pick(TRAITS)}`,
      sowFrom: sow,
      sowUntil: until,
      daysToHarvest: 40 + Math.floor(random() * 90),
      difficulty: pick(EASE),
      stock: Math.floor(random() * 60),
      savedBy: pick(['edda', 'tom', 'ines', 'bram', 'salka']),
    };
  });
}

/** A list in parts of so many at most, in order. */
export function inParts<Item>(items: readonly Item[], most: number): Item[][] {
  const parts: Item[][] = [];
  for (let from = 0; from < items.length; from += most) parts.push(items.slice(from, from + most));
  return parts;
}
