import assert from 'node:assert/strict';
import { typeSpec, type Design, designSpec } from '@/core/design/spec.ts';
import type { EntryView } from '@/core/design/values.ts';
import { compileSite } from '@/core/site/compile.ts';
import { PageScope } from '@/core/site/page-scope.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { escapeHtml } from '@/core/text.ts';
import { Validity } from '@/core/time/interval.ts';
import { cardList } from '@/core/template/card-list.ts';
import { type PerfRow, row, share } from './measure.ts';
import { listByReact, pageByReact } from './react-peer.ts';

const AT = Date.UTC(2026, 5, 1);
const type = typeSpec.parse({
  key: 'article',
  address: '/{title}',
  fields: [
    { key: 'title', kind: 'text' },
    { key: 'summary', kind: 'paragraphs' },
    { key: 'body', kind: 'richtext' },
    { key: 'place', kind: 'text' },
    { key: 'kind', kind: 'text' },
  ],
  card: 'card',
  template: 'page',
});
const design: Design = designSpec.parse({
  site: { name: 'Measured', url: 'https://measured.example', zone: 'UTC', language: 'en' },
  types: [type],
  templates: [
    {
      key: 'page',
      kind: 'page',
      type: 'article',
      blocks: [
        { block: 'heading', text: '{title}', level: 1 },
        { block: 'text', text: '{summary}', style: 'lead' },
        { block: 'text', text: '{kind}[ from {place}]' },
        { block: 'richText', field: 'body' },
      ],
    },
    {
      key: 'card',
      kind: 'card',
      type: 'article',
      blocks: [
        { block: 'heading', text: '{title}', level: 3, link: true },
        { block: 'text', text: '{summary}' },
        { block: 'text', text: '{kind}[ from {place}]', style: 'note' },
      ],
    },
  ],
});

const paragraph = (i: number): object => ({
  type: 'paragraph',
  content: [
    { type: 'text', text: `Paragraph ${i}: words & more words, ` },
    { type: 'text', text: 'some of them bold', marks: [{ type: 'bold' }] },
    { type: 'text', text: ', until the line is about as long as lines are.' },
  ],
});
const body = { type: 'doc', content: Array.from({ length: 12 }, (_, i) => paragraph(i)) };
const entry = (i: number): EntryView => ({
  id: `a${i}`,
  type,
  values: {
    title: `Article <${i}>`,
    summary: `The ${i}th of its kind, with a summary of a usual length for a card.`,
    body,
    place: 'Marrowdale',
    kind: 'Report',
  },
  created: AT,
  published: AT,
  updated: AT,
  author: '',
  state: 'live',
  path: `/article-${i}`,
});

type Doc = { content: { content: { text: string; marks?: unknown[] }[] }[] };

/** What a person would write by hand for the same page. */
function pageByHand(e: EntryView): string {
  const v = e.values as { title: string; summary: string; body: Doc; place: string; kind: string };
  let out = `<h1>${escapeHtml(v.title)}</h1><p class="lead">${escapeHtml(v.summary)}</p><p>${escapeHtml(v.kind)} from ${escapeHtml(v.place)}</p><div class="rich-text">`;
  for (const p of v.body.content) {
    out += '<p>';
    for (const t of p.content)
      out += t.marks ? `<strong>${escapeHtml(t.text)}</strong>` : escapeHtml(t.text);
    out += '</p>';
  }
  return `${out}</div>`;
}

function listByHand(entries: EntryView[]): string {
  let out = '<ul class="cards">';
  for (const e of entries) {
    const v = e.values as { title: string; summary: string; place: string; kind: string };
    out += `<li><h3><a href="${escapeHtml(e.path!)}">${escapeHtml(v.title)}</a></h3><p>${escapeHtml(v.summary)}</p><p class="note">${escapeHtml(v.kind)} from ${escapeHtml(v.place)}</p></li>`;
  }
  return `${out}</ul>`;
}

/** Compiled templates against string concatenation by hand, data at hand. */
export function measureTemplates(): PerfRow[] {
  const { site, issues } = compileSite(design);
  assert.deepEqual(issues, []);
  const scope = new PageScope(site, {} as SiteReader, new Validity(AT));
  const page = site.templates.pages.get('article')!.render;
  const card = site.templates.cards.get('article')!.render;
  const one = entry(1);
  const twenty = Array.from({ length: 20 }, (_, i) => entry(i));
  assert.equal(page(scope.of(one)), pageByHand(one));
  assert.equal(cardList(twenty, card, [], scope), listByHand(twenty));
  assert.equal(pageByReact(one), pageByHand(one));
  assert.equal(listByReact(twenty), listByHand(twenty));
  let sink = 0;
  const times = (n: number, make: () => string) => (): void => {
    for (let i = 0; i < n; i++) sink += make().length;
  };
  const article = share(
    times(3000, () => pageByHand(one)),
    times(3000, () => page(scope.of(one))),
  );
  const list = share(
    times(2500, () => listByHand(twenty)),
    times(2500, () => cardList(twenty, card, [], scope)),
  );
  const articleOfReact = share(
    times(600, () => pageByReact(one)),
    times(600, () => page(scope.of(one))),
  );
  const listOfReact = share(
    times(500, () => listByReact(twenty)),
    times(500, () => cardList(twenty, card, [], scope)),
  );
  assert.ok(sink > 0);
  return [
    row('article page, against React’s static markup (speed)', articleOfReact, '≥', 2.5),
    row('list of 20 cards, against React’s static markup (speed)', listOfReact, '≥', 4),
    row('article page, against concatenation by hand (speed)', article, '≥', 0.85),
    row('list of 20 cards, against concatenation by hand (speed)', list, '≥', 0.85),
  ];
}
