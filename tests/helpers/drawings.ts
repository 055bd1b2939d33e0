import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';

/** A small drawing in a colour, as it is kept. */
export function drawing(colour: string, width = 40): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="20"><rect width="${width}" height="20" fill="${colour}"></rect></svg>`;
}

/** Puts a drawing among the kept files of a data folder, as an upload does; what is known of it. */
export function keptDrawing(data: string, colour: string, width = 40) {
  const text = drawing(colour, width);
  const hash = createHash('sha256').update(text).digest('hex');
  mkdirSync(join(data, 'media'), { recursive: true });
  writeFileSync(join(data, 'media', hash), text);
  return { hash, mime: 'image/svg+xml', bytes: text.length, width, height: 20 };
}

/** Keeps a font in a data folder, as what arrives is kept. */
export function keptFont(data: string) {
  const file = '@fontsource-variable/newsreader/files/newsreader-latin-wght-normal.woff2';
  const bytes = readFileSync(createRequire(import.meta.url).resolve(file));
  const hash = createHash('sha256').update(bytes).digest('hex');
  mkdirSync(join(data, 'media'), { recursive: true });
  writeFileSync(join(data, 'media', hash), bytes);
  return { hash, mime: 'font/woff2', bytes: bytes.length, width: 0, height: 0 };
}
