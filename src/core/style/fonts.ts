import { z } from 'zod';
import { FACES } from './faces.ts';

const weight = z.int().min(1).max(1000);

/** A font of the site's own: one file of a family. */
export const fontSpec = z.strictObject({
  /** The family that it is chosen by; several files may be of one. */
  name: z
    .string()
    .regex(/^[A-Za-z0-9][A-Za-z0-9 _-]{0,59}$/, 'A name has letters, digits, spaces and hyphens.')
    .refine(
      (name) => !Object.hasOwn(FACES, name),
      'This is the name of a type that machines have.',
    ),
  /** Its file in the folder `style/`. */
  file: z.string().regex(/^[A-Za-z0-9][A-Za-z0-9._-]{0,119}$/, 'A file has a plain name.'),
  /** How heavy it is, 1–1000: one weight, or from the least to the most. */
  weight: z.union([weight, z.tuple([weight, weight])]).default(400),
  slant: z.enum(['upright', 'italic']).default('upright'),
});
/** A font of the site's own. */
export type Font = z.output<typeof fontSpec>;

/** The rules that make fonts known to browsers (CSS Fonts 4, §4). */
export function fontFaces(fonts: readonly Font[]): string {
  return fonts.map(fontFace).join('\n');
}

/** The rule of one font. */
export function fontFace({ name, file, weight: heavy, slant }: Font): string {
  const range = [heavy].flat().join(' ');
  const style = slant === 'italic' ? ' font-style: italic;' : '';
  return (
    `@font-face { font-family: "${name}"; src: url("/style/${file}") format("woff2"); ` +
    `font-weight: ${range};${style} font-display: swap; }`
  );
}

/** The families of a type: one that machines have, or one of the site's own, as CSS. */
export function facesCss(name: string): string {
  return Object.hasOwn(FACES, name)
    ? FACES[name as keyof typeof FACES].css
    : `"${name}", ${FACES.plain.css}`;
}
