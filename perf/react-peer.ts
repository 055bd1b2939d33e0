// The measured pages as a person would write them with React, rendered to static markup.
import { createElement as h } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import type { EntryView } from '@/core/design/values.ts';

type Doc = { content: { content: { text: string; marks?: unknown[] }[] }[] };
type Article = { title: string; summary: string; body: Doc; place: string; kind: string };

const fields = (e: EntryView): Article => e.values as Article;

function Page({ of }: { of: EntryView }) {
  const { title, summary, body, place, kind } = fields(of);
  const text = body.content.map(({ content }, i) =>
    h('p', { key: i }, ...content.map((t) => (t.marks ? h('strong', null, t.text) : t.text))),
  );
  return [
    h('h1', { key: 'h' }, title),
    h('p', { key: 's', className: 'lead' }, summary),
    h('p', { key: 'k' }, `${kind} from ${place}`),
    h('div', { key: 'b', className: 'rich-text' }, text),
  ];
}

function Card({ of }: { of: EntryView }) {
  const { title, summary, place, kind } = fields(of);
  return [
    h('h3', { key: 'h' }, h('a', { href: of.path }, title)),
    h('p', { key: 's' }, summary),
    h('p', { key: 'n', className: 'note' }, `${kind} from ${place}`),
  ];
}

/** The article's page. */
export function pageByReact(of: EntryView): string {
  return renderToStaticMarkup(h(Page, { of }));
}

/** The list of cards. */
export function listByReact(entries: readonly EntryView[]): string {
  const items = entries.map((of) => h('li', { key: of.id }, h(Card, { of })));
  return renderToStaticMarkup(h('ul', { className: 'cards' }, items));
}
