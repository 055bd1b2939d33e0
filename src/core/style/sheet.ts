import { COLOURS, FACES, type Colours, type Look, ROOMS, lookSpec } from './look-spec.ts';
import { BASE } from './base.ts';
import { START, type Tokens } from './starts.ts';

/** What of a design decides its style sheet. */
export interface Styled {
  css: string;
  look?: Look | undefined;
}

/**
 * The style sheet of a design's pages: its look and then its own rules; its own rules alone where it
 * has no look; the first starting style where it has neither.
 */
export function sheetOf({ css, look }: Styled): string {
  if (!look && css.trim() !== '') return css;
  const own = look ?? lookSpec.parse({});
  const start = START[own.start];
  return [tokensCss(tokensOf(own)), BASE, start.css, css].filter(Boolean).join('\n');
}

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
  const { text, scale, room, width, radius, textFace, headingFace } = tokens;
  const steps = [1, 2, 3, 4].map((n) => `--h${5 - n}: ${(text * scale ** n).toFixed(1)}px;`);
  const rooms = [4, 8, 12, 20, 32, 56].map(
    (px, i) => `--s${i + 1}: ${Math.round(px * ROOMS[room])}px;`,
  );
  return `:root { color-scheme: light dark; ${colourCss(tokens.light)}
--text: ${text}px; ${steps.join(' ')} ${rooms.join(' ')}
--width: ${width}px; --radius: ${radius}px; --edge: max(20px, calc((100vw - var(--width)) / 2));
--face: ${FACES[textFace].css}; --heading-face: ${FACES[headingFace].css}; }
@media (prefers-color-scheme: dark) { :root { ${colourCss(tokens.dark)} } }`;
}

function colourCss(colours: Colours): string {
  return (Object.keys(COLOURS) as (keyof Colours)[])
    .map((name) => `--${name}: ${colours[name]};`)
    .join(' ');
}
