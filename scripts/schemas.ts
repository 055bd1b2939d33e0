// npm run schemas: writes the JSON Schemas of the site folder's files to schemas/.
import { mkdirSync, writeFileSync } from 'node:fs';
import { shippedSchemas } from '@/server/files/schemas.ts';

mkdirSync('schemas', { recursive: true });
for (const [name, schema] of Object.entries(shippedSchemas()))
  writeFileSync(`schemas/${name}.schema.json`, `${JSON.stringify(schema, null, 2)}\n`);
