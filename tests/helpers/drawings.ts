import { createHash } from 'node:crypto';
import { mkdirSync, writeFileSync } from 'node:fs';
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
