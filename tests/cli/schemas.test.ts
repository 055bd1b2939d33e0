import { readFileSync, readdirSync } from 'node:fs';
import { expect, test } from 'vitest';
import { shippedSchemas } from '@/server/files/schemas.ts';

test('the JSON Schemas that are shipped are those of the program', () => {
  const shipped = Object.fromEntries(
    readdirSync('schemas').map((f) => [
      f.replace('.schema.json', ''),
      JSON.parse(readFileSync(`schemas/${f}`, 'utf8')) as unknown,
    ]),
  );
  expect(shipped).toEqual(JSON.parse(JSON.stringify(shippedSchemas())));
});
