import type { Colours, ColourName } from './look-spec.ts';

/** Least contrast of words and their ground (WCAG 2.2, 1.4.3), and of edges (1.4.11). */
const WORDS = 4.5;

/** Two colours that words stand in, one on the other. */
const PAIRS: readonly [words: ColourName, ground: ColourName][] = [
  ['ink', 'ground'],
  ['ink', 'raised'],
  ['ink', 'fill'],
  ['muted', 'ground'],
  ['muted', 'raised'],
  ['accent', 'ground'],
  ['accent', 'raised'],
];

/** The contrast of two colours that are read together. */
export interface Contrast {
  words: ColourName;
  ground: ColourName;
  /** From 1, the same, to 21. */
  ratio: number;
  isEnough: boolean;
}

/** The contrasts of all colours that are read together. */
export function contrasts(colours: Colours): Contrast[] {
  return PAIRS.map(([words, ground]) => {
    const ratio = contrastOf(colours[words], colours[ground]);
    return { words, ground, ratio, isEnough: ratio >= WORDS };
  });
}

/** The contrast ratio of two colours `#rrggbb` (WCAG 2.2): from 1 to 21. */
export function contrastOf(one: string, other: string): number {
  const [a, b] = [luminance(one), luminance(other)];
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}

/** Relative luminance (WCAG 2.2), 0 to 1. */
function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const part = parseInt(colour.slice(at, at + 2), 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
