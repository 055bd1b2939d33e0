import { expect, test } from 'vitest';
import { designOf } from '../../../tests/helpers/design.ts';
import { paragraphsOf } from '../rich-text/index.ts';
import { parseText } from './rich-text-values.ts';

const design = designOf({
  types: [
    {
      key: 'box',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'said', kind: 'richtext' },
      ],
    },
  ],
});
const field = design.types[0]!.fields[1]!;
const given = { now: 0, zone: 'UTC', richText: paragraphsOf };
const boxes = (depth: number): object => {
  let doc: object = { type: 'doc', content: [{ type: 'paragraph' }] };
  for (let i = 0; i < depth; i++)
    doc = {
      type: 'doc',
      content: [{ type: 'part', attrs: { type: 'box', values: { said: doc } } }],
    };
  return doc;
};

test('parts stand in the texts of parts, and not without end', () => {
  expect(parseText(boxes(10), field, given).ok).toBe(true);
  for (const depth of [11, 20_000])
    expect(JSON.stringify(parseText(boxes(depth), field, given)).slice(0, 2000)).toMatch(
      /at most 10 deep/,
    );
});
