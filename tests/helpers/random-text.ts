import fc from 'fast-check';
import { MARKS, NODES, type RichMark, type RichNode } from '@/core/rich-text/index.ts';

/** Words with what Markdown reads otherwise than as words. */
const words = fc.oneof(
  { weight: 4, arbitrary: fc.constantFrom('Peas', 'sow in May', 'a b', 'the late frost') },
  fc.constantFrom('*', ' a', 'b ', '1. ', '- ', '# x', '::entry[a]', ':style[x]', '<b>', '&amp;'),
  fc.constantFrom(
    '_a_',
    '[x](y)',
    '`',
    '|',
    '~~',
    '\\',
    '---',
    '> q',
    'a\nb',
    '!',
    ' ',
    'é😀',
    ':::',
  ),
  fc.string({ maxLength: 12, unit: 'grapheme' }),
);

const mark: fc.Arbitrary<RichMark> = fc.oneof(
  fc.constantFrom('bold', 'italic', 'strike', 'code', 'underline').map((type) => ({ type })),
  fc.constantFrom('soft', 'loud').map((style) => ({ type: 'styled', attrs: { style } })),
  fc
    .record(
      {
        href: fc.constantFrom('/a', 'https://x.example/?a=b&c', '#p'),
        title: fc.constantFrom('T', 'a "b"'),
      },
      { requiredKeys: ['href'] },
    )
    .map((attrs) => ({ type: 'link', attrs })),
  fc.constantFrom('g0', 'growers/a#1', 'ä b').map((entry) => ({ type: 'link', attrs: { entry } })),
);
const marks = fc.uniqueArray(mark, { maxLength: 3, selector: ({ type }) => type });
const withMarks = (node: RichNode, own: RichMark[]): RichNode =>
  own.length > 0 ? { ...node, marks: own } : node;

const text = fc
  .tuple(words, marks)
  .map(([value, own]) => withMarks({ type: 'text', text: value }, own));
const image = fc
  .record(
    {
      src: fc.constantFrom('pea.png', 'a b.png'),
      alt: words,
      title: words,
      style: fc.constant('wide'),
    },
    { requiredKeys: ['src'] },
  )
  .map((attrs) => ({ type: 'image', attrs }));
const inline = fc.array(
  fc.oneof({ weight: 6, arbitrary: text }, image, fc.constant({ type: 'hardBreak' })),
  { maxLength: 4 },
);
const holding = (type: string, content: RichNode[], attrs?: object): RichNode => ({
  type,
  ...(attrs && Object.keys(attrs).length > 0 ? { attrs: { ...attrs } } : {}),
  ...(content.length > 0 ? { content } : {}),
});
const optional = (attrs: Record<string, fc.Arbitrary<unknown>>): fc.Arbitrary<object> =>
  fc.record(attrs, { requiredKeys: [] });
const loose = fc.constant(true);

const { block } = fc.letrec<{ block: RichNode }>((tie) => {
  const blocks = fc.array(tie('block'), { minLength: 1, maxLength: 3 });
  const items = fc.array(
    blocks.map((content) => holding('listItem', content)),
    { minLength: 1, maxLength: 3 },
  );
  const cells = (type: string) =>
    fc
      .array(fc.tuple(inline, optional({ align: fc.constantFrom('left', 'right', 'center') })), {
        minLength: 2,
        maxLength: 2,
      })
      .map((all) =>
        holding(
          'tableRow',
          all.map(([content, attrs]) => holding(type, [holding('paragraph', content)], attrs)),
        ),
      );
  return {
    block: fc.oneof(
      { maxDepth: 3, depthIdentifier: 'rich-text' },
      fc
        .tuple(inline, optional({ style: fc.constant('lead') }))
        .map(([c, a]) => holding('paragraph', c, a)),
      fc
        .tuple(inline, fc.integer({ min: 1, max: 6 }))
        .map(([c, level]) => holding('heading', c, { level })),
      fc.constant({ type: 'horizontalRule' }),
      fc
        .tuple(words, optional({ language: fc.constantFrom('js', 'yaml', 'rich-text') }))
        .map(([value, a]) =>
          holding('codeBlock', value === '' ? [] : [{ type: 'text', text: value }], a),
        ),
      fc.constantFrom('g0', 'growers/a#1').map((entry) => ({ type: 'entry', attrs: { entry } })),
      fc
        .record(
          { title: words, n: fc.integer(), tags: fc.array(words, { maxLength: 2 }), said: blocks },
          { requiredKeys: [] },
        )
        .map(({ said, ...values }) => ({
          type: 'part',
          attrs: {
            type: 'box',
            values: { ...values, ...(said ? { said: { type: 'doc', content: said } } : {}) },
          },
        })),
      blocks.map((content) => holding('blockquote', content)),
      fc.tuple(items, optional({ loose })).map(([c, a]) => holding('bulletList', c, a)),
      fc
        .tuple(items, optional({ start: fc.integer({ min: 0, max: 99 }), loose }))
        .map(([c, a]) => holding('orderedList', c, a)),
      fc
        .tuple(cells('tableHeader'), fc.array(cells('tableCell'), { maxLength: 2 }))
        .map(([head, rows]) => holding('table', [head, ...rows])),
    ),
  };
});

/** Documents of every kind of node and mark. */
export const randomText: fc.Arbitrary<RichNode> = fc
  .array(block, { minLength: 1, maxLength: 4 })
  .map((content) => ({ type: 'doc', content }));

/** What may be done to a node of a document so that it is none any more, or another one. */
const harm = fc.constantFrom<(node: RichNode) => unknown>(
  ({ type: _, ...rest }) => rest,
  (node) => ({ ...node, type: 'widget' }),
  (node) => ({ ...node, type: 'listItem' }),
  (node) => ({ ...node, type: 'text' }),
  (node) => ({ ...node, type: 'part' }),
  (node) => ({ ...node, content: {} }),
  (node) => ({ ...node, attrs: { level: 9, start: -1, align: 'up', loose: 1 } }),
  (node) => ({ ...node, attrs: null }),
  (node) => ({ ...node, attrs: [] }),
  (node) => ({ ...node, marks: [{ type: 'link', attrs: {} }] }),
  (node) => ({ ...node, marks: [{ type: 'styled' }] }),
  (node) => ({ ...node, marks: 'bold' }),
  (node) => ({ ...node, text: 7 }),
  () => 'words',
);

/** Documents of which something may be none. */
export const harmedText: fc.Arbitrary<unknown> = fc
  .tuple(randomText, harm, fc.nat(30))
  .map(([doc, act, at]) => {
    let n = 0;
    const walk = (node: RichNode): unknown => {
      if (n++ === at) return act(node);
      return node.content ? { ...node, content: node.content.map(walk) } : node;
    };
    return walk(doc);
  });

/** All that forms of texts can let in. */
export const randomForm = fc
  .record({
    marks: fc.option(fc.subarray([...MARKS.keys()])),
    blocks: fc.option(fc.subarray([...NODES.keys()])),
    levels: fc.option(fc.subarray([1, 2, 3, 4, 5, 6])),
    parts: fc.subarray(['box']),
    styles: fc.subarray(['soft', 'loud', 'lead', 'wide']),
  })
  .map(({ marks: m, blocks: b, levels: l, parts, styles }) => ({
    marks: m && new Set(m),
    blocks: b && new Set(b),
    levels: l && new Set(l),
    parts: new Set(parts),
    styles: new Set(styles),
  }));
