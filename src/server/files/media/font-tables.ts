import type { Font } from '@/core/style/fonts.ts';

/** What a font says of itself; `family` is blank where it names none. */
export interface FontFacts extends Pick<Font, 'weight' | 'slant'> {
  family: string;
}

type Table = DataView<ArrayBuffer>;

/** `fsSelection` (OpenType 1.9, OS/2): the letters lean. */
const ITALIC = 1;
const REGULAR = 400;
/** Identifiers of names (OpenType 1.9, name): the typographic family, else the family. */
const FAMILIES = [16, 1];
const [UNICODE, WINDOWS] = [0, 3];

/**
 * What a font (OpenType 1.9) says of itself, read from the few tables that say it: nothing else
 * of it is trusted. @throws RangeError where it is none, or a table ends too early
 */
export function fontFacts(bytes: Uint8Array<ArrayBuffer>): FontFacts {
  const tables = tablesOf(new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  const [profile, sheet, names] = ['maxp', 'OS/2', 'name'].map((tag) => tables.get(tag));
  if (!profile || profile.getUint16(4) === 0) throw new RangeError('It has no letters.');
  const given = sheet?.getUint16(4) ?? REGULAR;
  const [least, most] = weightsOf(tables.get('fvar')) ?? [given, given];
  return {
    family: (names && familyOf(names)) ?? '',
    weight:
      inBounds(least) === inBounds(most) ? inBounds(least) : [inBounds(least), inBounds(most)],
    slant: sheet && (sheet.getUint16(62) & ITALIC) !== 0 ? 'italic' : 'upright',
  };
}

const inBounds = (weight: number): number => Math.min(1000, Math.max(1, Math.round(weight)));

function tablesOf(font: Table): Map<string, Table> {
  const found = new Map<string, Table>();
  for (let i = 0, at = 12; i < font.getUint16(4); i++, at += 16)
    found.set(tagAt(font, at), part(font, font.getUint32(at + 8), font.getUint32(at + 12)));
  return found;
}

const part = ({ buffer, byteOffset, byteLength }: Table, from: number, length: number): Table => {
  if (from + length > byteLength) throw new RangeError('A table ends too early.');
  return new DataView(buffer, byteOffset + from, length);
};

const tagAt = (table: Table, at: number): string =>
  String.fromCharCode(...[0, 1, 2, 3].map((i) => table.getUint8(at + i)));

/** The lightest and the heaviest of a font whose weight varies; null where it does not. */
function weightsOf(axes: Table | undefined): [number, number] | null {
  if (!axes) return null;
  const size = axes.getUint16(10);
  for (let i = 0, at = axes.getUint16(4); i < axes.getUint16(8); i++, at += size)
    if (tagAt(axes, at) === 'wght') return [fixedAt(axes, at + 4), fixedAt(axes, at + 12)];
  return null;
}

/** A number of 16.16 bits. */
const fixedAt = (table: Table, at: number): number => table.getInt32(at) / 65_536;

function familyOf(names: Table): string | null {
  const stored = names.getUint16(4);
  let found: { rank: number; text: string } | null = null;
  for (let i = 0, at = 6; i < names.getUint16(2); i++, at += 12) {
    const rank = FAMILIES.indexOf(names.getUint16(at + 6));
    const isWide = [UNICODE, WINDOWS].includes(names.getUint16(at));
    if (rank < 0 || !isWide || (found && found.rank <= rank)) continue;
    const text = part(names, stored + names.getUint16(at + 10), names.getUint16(at + 8));
    found = { rank, text: new TextDecoder('utf-16be').decode(text) };
  }
  return found?.text ?? null;
}
