import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { designOf } from '../../../tests/helpers/design.ts';
import { randomText } from '../../../tests/helpers/random-text.ts';
import { type RichNode, normalRichText } from '../rich-text/index.ts';
import { compileSite } from '../site/compile.ts';
import { letIn, notLetInAnew } from './let-in.ts';
import { textFormOf } from './text-form.ts';
import type { Values } from './values.ts';

const { site, issues } = compileSite(
  designOf({
    textForms: [
      { key: 'wide', blocks: ['heading', 'table', 'image'], roles: { editor: 'narrow' } },
      { key: 'narrow', marks: ['bold', 'link'], blocks: ['heading', 'bulletList'], levels: [2] },
    ],
    types: [
      {
        key: 'report',
        fields: [
          { key: 'title', kind: 'text' },
          { key: 'body', kind: 'richtext', form: 'wide' },
          { key: 'open', kind: 'richtext' },
          {
            key: 'legs',
            kind: 'group',
            many: true,
            fields: [{ key: 'told', kind: 'richtext', form: 'wide' }],
          },
        ],
      },
    ],
  }),
);
const { fields } = site.types.get('report')!;
const paragraph = (text: string): RichNode => ({
  type: 'paragraph',
  content: [{ type: 'text', text }],
});
const table = (text: string): RichNode => ({
  type: 'table',
  content: [{ type: 'tableRow', content: [{ type: 'tableCell', content: [paragraph(text)] }] }],
});
const doc = (...content: RichNode[]): RichNode => ({ type: 'doc', content });
const nothing = (): Values => ({});

test('what a role may put in is what both its form and the narrower one let in', () => {
  expect(issues).toEqual([]);
  const [, body, open] = fields;
  expect(textFormOf(body!, 'editor')).toMatchObject({
    marks: new Set(['bold', 'link']),
    blocks: new Set(['heading']),
    levels: new Set([2]),
    open: false,
  });
  expect(textFormOf(body!, 'builder')).toMatchObject({ marks: null, levels: null });
  expect(textFormOf(body!)).toMatchObject({ blocks: new Set(['heading', 'table', 'image']) });
  expect(textFormOf(open!, 'editor').open).toBe(true);
});

describe('what is not let in', () => {
  const told = (body: RichNode, before: RichNode | null, role: 'builder' | 'editor'): string[] =>
    notLetInAnew(fields, { body }, () => ({ body: before }), role).map(
      ({ message, path }) => `${path}: ${message}`,
    );

  test('is told of an editor’s text, not of a builder’s', () => {
    const text = doc(table('Four'));
    expect(told(text, null, 'builder')).toEqual([]);
    expect(told(text, null, 'editor')).toEqual([
      'body: Body holds no Table, and one stands at "/content/0": “Four”.',
    ]);
  });

  test('may stay where it stood before, changed or moved, and no other of its sort beside it', () => {
    const before = doc(table('Four'), paragraph('Fog.'));
    expect(told(doc(paragraph('Much fog.'), table('Four')), before, 'editor')).toEqual([]);
    expect(told(doc(table('Eight')), before, 'editor')).toEqual([]);
    expect(told(doc(table('New'), table('Four')), before, 'editor')).toEqual([
      'body: Body holds no Table, and one stands at "/content/0": “New”.',
    ]);
    const heading = { ...paragraph('Fog'), type: 'heading', attrs: { level: 3 } };
    expect(told(doc(heading), before, 'editor')).toHaveLength(1);
  });

  test('is told of texts within groups', () => {
    const values = { legs: [{ told: doc(table('Four')) }] };
    const found = notLetInAnew(fields, values, nothing, 'editor');
    expect(found.map(({ code, path }) => [code, path])).toEqual([['not-let-in', 'legs']]);
  });
});

test('whatever a text holds, what is left of it for a role is let in, and nothing else is lost', () => {
  let lost = 0;
  fc.assert(
    fc.property(
      randomText,
      fc.constantFrom('builder' as const, 'editor' as const),
      (given, role) => {
        const text = normalRichText(given);
        const whole = { title: 'Fog', body: text, open: text, legs: [{ told: text }] };
        const { values, less } = letIn(fields, whole, role);
        expect(notLetInAnew(fields, values, nothing, role)).toEqual([]);
        expect(values).toMatchObject({ title: 'Fog', open: text });
        const isLess = notLetInAnew(fields, whole, nothing, role).length > 0;
        expect(less).toEqual(isLess ? ['Body', 'Told'] : []);
        if (!isLess) expect(values).toEqual(whole);
        lost += less.length;
      },
    ),
    { numRuns: 200 },
  );
  expect(lost).toBeGreaterThan(20);
});
