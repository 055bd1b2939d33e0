import { facesCss, fontFaces } from './fonts.ts';
import { COLOURS, type Colours, type Look, ROOMS, lookSpec } from './look-spec.ts';
import { BASE_BLOCKS } from './base-blocks.ts';
import { BASE_VISITORS } from './base-visitors.ts';
import { BASE_TEXTS } from './base-texts.ts';
import { type NamedStyle, namedCss } from './named-look.ts';
import { START, type Tokens } from './starts.ts';

/** What of a design decides its style sheet. */
export interface Styled {
  css: string;
  look?: Look | undefined;
  styles?: readonly NamedStyle[] | undefined;
}

/**
 * The style sheet of a design's pages: its look, its named styles and then its own rules; where it
 * has no look, these two alone; the first starting style where it has neither look nor rules.
 */
export function sheetOf({ css, look, styles = [] }: Styled): string {
  const named = namedCss(styles);
  const hasOwn = !look && css.trim() !== '';
  if (hasOwn) return named === '' ? css : [coloursAlone(), named, css].join('\n');
  const own = look ?? lookSpec.parse({});
  const start = START[own.start];
  return [tokensCss(tokensOf(own)), BASE, squeezed(start.css), named, css]
    .filter(Boolean)
    .join('\n')
    .trimStart();
}

/** Rules as they are sent, without the white space that they are written with. */
const squeezed = (rules: string): string => rules.replace(/\s+/g, ' ').trim();
const BASE = squeezed(BASE_TEXTS + BASE_BLOCKS + BASE_VISITORS);

/** All that a look says: what it leaves out is as its starting style has it. */
export function tokensOf({ start, light, dark, ...own }: Look): Tokens {
  const { tokens } = START[start];
  const given = Object.fromEntries(Object.entries(own).filter(([, value]) => value !== undefined));
  return {
    ...tokens,
    ...given,
    light: { ...tokens.light, ...filled(light) },
    dark: { ...tokens.dark, ...filled(dark) },
  };
}

function filled(colours: Partial<Record<string, string | undefined>> = {}): Partial<Colours> {
  return Object.fromEntries(Object.entries(colours).filter(([, value]) => value !== undefined));
}

function tokensCss(tokens: Tokens): string {
  const { width, radius, fonts = [] } = tokens;
  return `${fontFaces(fonts)}
:root { color-scheme: light dark; ${colourCss(tokens.light)}
${sizesCss(tokens)}
--width: ${width}px; --radius: ${radius}px; --edge: max(20px, calc((100vw - var(--width)) / 2)); }
@media (prefers-color-scheme: dark) { :root { ${colourCss(tokens.dark)} } }`;
}

function sizesCss({ text, scale, room, textFace, headingFace }: Tokens): string {
  const steps = [1, 2, 3, 4].map((n) => `--h${5 - n}: ${(text * scale ** n).toFixed(1)}px;`);
  const rooms = [4, 8, 12, 20, 32, 56].map(
    (px, i) => `--s${i + 1}: ${Math.round(px * ROOMS[room])}px;`,
  );
  return `--text: ${text}px; ${steps.join(' ')} ${rooms.join(' ')}
--face: ${facesCss(textFace)}; --heading-face: ${facesCss(headingFace)};`;
}

/** What named styles name, for rules of one's own that may give the same names other values. */
function coloursAlone(): string {
  const tokens = tokensOf(lookSpec.parse({}));
  return `:root { ${colourCss(tokens.light)}
${sizesCss(tokens)} --radius: ${tokens.radius}px; }`;
}

function colourCss(colours: Colours): string {
  return (Object.keys(COLOURS) as (keyof Colours)[])
    .map((name) => `--${name}: ${colours[name]};`)
    .join(' ');
}
