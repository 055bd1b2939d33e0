// The measured pages as a person would write them with React, rendered to static markup.
import { type ReactNode, createElement as h } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { limitText } from '@/core/text.ts';
import {
  type Head,
  MONTHS,
  WIDTHS,
  dayOf,
  headOfGuide,
  headOfList,
  headingId,
  tipOf,
  wordsOf,
} from './by-hand.ts';
import {
  type CardData,
  type FrameData,
  type GuideData,
  LIST,
  type ListData,
  type Spoken,
} from './demo-pages.ts';
import type { TextNode } from './demo-pages.ts';

function Page({ f, head, children }: { f: FrameData; head: Head; children?: ReactNode }) {
  const { title, description, path, type, spoken } = head;
  const meta = (property: string, content: string): ReactNode => h('meta', { property, content });
  return h(
    'html',
    { lang: f.language },
    h(
      'head',
      null,
      h('meta', { charSet: 'utf-8' }),
      h('meta', { name: 'viewport', content: 'width=device-width, initial-scale=1' }),
      h('title', null, title),
      h('meta', { name: 'description', content: description }),
      h('link', { rel: 'canonical', href: f.url + path }),
      h(Alternates, { f, spoken }),
      meta('og:title', title),
      meta('og:description', description),
      meta('og:type', type),
      meta('og:site_name', f.name),
      meta('og:locale', f.language.replace('-', '_')),
      meta('og:url', f.url + path),
      h('link', { rel: 'stylesheet', href: `/style/${f.css}.css` }),
    ),
    h(
      'body',
      null,
      h('a', { className: 'skip', href: '#content' }, 'Skip to content'),
      h(Header, { f, path }),
      h('main', { id: 'content' }, children),
      h(
        'footer',
        { className: 'site-footer' },
        h('p', null, `${f.name}. ${f.strapline}`),
        h('p', null, f.contact),
        h('a', { href: f.letters }, 'Write to us'),
        h(Languages, { spoken, path }),
      ),
    ),
  );
}

function Alternates({ f, spoken }: { f: FrameData; spoken: Spoken[] }) {
  return spoken.map(({ language, path }) =>
    h('link', { key: language, rel: 'alternate', hrefLang: language, href: f.url + path }),
  );
}

function Languages({ spoken, path }: { spoken: Spoken[]; path: string }) {
  const links = spoken.map(({ language, label, path: to }) => {
    const current = to === path ? { 'aria-current': true } : {};
    const link = h('a', { href: to, hrefLang: language, lang: language, ...current }, label);
    return h('li', { key: language }, link);
  });
  return h('nav', { className: 'languages', 'aria-label': 'Languages' }, h('ul', null, links));
}

function Header({ f, path }: { f: FrameData; path: string }) {
  const items = f.menu.map(({ path: to, words }) => {
    const isIn = path.startsWith(`${to}/`);
    const mark =
      to === path ? { 'aria-current': 'page' as const } : isIn ? { className: 'above' } : {};
    return h('li', { key: to }, h('a', { href: to, ...mark }, words));
  });
  const menu = h('nav', { className: 'menu', 'aria-label': 'Main' }, h('ul', null, items));
  const brand = h('a', { href: '/', className: 'brand' }, f.name);
  const field = h('input', { type: 'search', name: 'q', maxlength: 200 });
  const search = h(
    'form',
    { className: 'search-box', action: '/search', role: 'search', 'aria-label': 'Search' },
    h('label', null, 'Search ', field),
    ' ',
    h('button', { type: 'submit' }, 'Find'),
  );
  return h('header', { className: 'site-header' }, brand, menu, search);
}

function Months({ card: { sowFrom, sowUntil }, now }: { card: CardData; now: number }) {
  const [a, b] = [Number(sowFrom.slice(5, 7)), Number(sowUntil.slice(5, 7))];
  const cells = MONTHS.map((name, i) => {
    const m = i + 1;
    const isOn = a <= b ? a <= m && m <= b : m >= a || m <= b;
    const className = [isOn ? 'on' : '', m === now ? 'now' : ''].filter(Boolean).join(' ');
    return h('i', { key: m, className: className || undefined, title: name }, name[0]);
  });
  const words = a === b ? MONTHS[a - 1] : `${MONTHS[a - 1]} to ${MONTHS[b - 1]}`;
  const label = `Sow: ${words}`;
  return h('div', { className: 'months', role: 'img', 'aria-label': label }, cells);
}

function Picture({ card }: { card: CardData }) {
  const { hash, width: px, height, alt } = card.picture;
  const width = Math.min(320, px);
  const most = Math.min(2 * width, px);
  const steps = WIDTHS.slice(0, WIDTHS.findIndex((step) => step >= most) + 1);
  return h('img', {
    src: `/media/${hash}/${width}`,
    srcSet: steps.map((step) => `/media/${hash}/${step} ${Math.min(step, px)}w`).join(', '),
    sizes: `(max-width: ${width}px) 100vw, ${width}px`,
    ...{ alt, width, height: Math.round((width * height) / px) },
    loading: 'lazy', // else React adds a link for each that fetches it first
  });
}

function Card({ card, now, level }: OneOf & { card: CardData }) {
  return h(
    'div',
    { className: 'packet' },
    h('figure', { className: 'picture' }, h(Picture, { card })),
    h('p', { className: 'kicker' }, card.family),
    h('h3', { 'aria-level': level }, h('a', { href: card.path }, card.title)),
    h('p', null, limitText(card.summary, 90)),
    h(Months, { card, now }),
  );
}

/** The month that is now, and the level of headings where it is otherwise. */
interface OneOf {
  now: number;
  level?: number;
}

function Cards({ cards, ...one }: OneOf & { cards: CardData[] }) {
  const items = cards.map((card) => h('li', { key: card.path }, h(Card, { card, ...one })));
  return h('ul', { className: 'cards' }, items);
}

const inner = ({ content = [] }: TextNode): ReactNode =>
  content.map((n, key) => h(Node, { key, n }));

function Node({ n }: { n: TextNode }): ReactNode {
  const className = n.attrs?.style && `style-${n.attrs.style}`;
  switch (n.type) {
    case 'text': {
      const mark = n.marks?.[0] as TextNode | undefined;
      return mark ? h('span', { className: `style-${mark.attrs!.style}` }, n.text) : n.text;
    }
    case 'paragraph':
      return h('p', { className }, inner(n));
    case 'heading':
      return h(`h${n.attrs!.level}`, { id: headingId(wordsOf(n)) }, inner(n));
    case 'table': {
      const [head, ...rest] = n.content!.map((row, key) => h(Node, { key, n: row }));
      return h('table', null, h('thead', null, head), h('tbody', null, rest));
    }
    case 'tableRow':
      return h('tr', null, inner(n));
    case 'tableHeader':
      return h('th', { scope: 'col' }, inner(n.content![0]!));
    case 'tableCell':
      return h('td', null, inner(n.content![0]!));
    default:
      return h(
        'div',
        { className: 'part' },
        h('div', { className: 'tip' }, h('p', null, tipOf(n))),
      );
  }
}

/** As HTML is written by hand: elements without content are not closed, text is not cut. */
const document = (page: ReactNode): string => `<!DOCTYPE html>\n${renderToStaticMarkup(page)}`;

/** The page of a guide. */
export function guideByReact(f: FrameData, g: GuideData): string {
  const headings = g.body.content!.filter(({ type }) => type === 'heading').map(wordsOf);
  const contents = headings.map((words) =>
    h('li', { key: words }, h('a', { href: `#${headingId(words)}` }, words)),
  );
  const label = h('span', { className: 'label' }, 'Next');
  const next = h('a', { href: g.next.path, rel: 'next' }, label, ` ${g.next.title}`);
  const onThisPage = 'On this page';
  const cards = h(Cards, { cards: g.cards, now: f.month });
  return document(
    h(
      Page,
      { f, head: headOfGuide(f, g) },
      h('div', { className: 'subjects kicker' }, h('ul', null, h('li', null, g.topic))),
      h('h1', null, g.title),
      h('p', { className: 'lead' }, g.summary),
      h('p', { className: 'facts' }, `${dayOf(g.published)} · ${g.minutes} min`),
      h(
        'nav',
        { className: 'contents', 'aria-label': onThisPage },
        h('h2', null, onThisPage),
        h('ul', null, contents),
      ),
      h('div', { className: 'rich-text' }, inner(g.body)),
      h('section', { className: 'entry-cards' }, h('h2', null, 'Seed for this'), cards),
      h(
        'nav',
        { className: 'beside', 'aria-label': 'More of the same' },
        h('ul', null, h('li', null, next)),
      ),
    ),
  );
}

/** The first page of the list. */
export function listByReact(f: FrameData, l: ListData): string {
  const pages = Array.from({ length: l.pages }, (_, i) => {
    const [href, mark] =
      i === 0 ? [LIST, { 'aria-current': 'page' as const }] : [`${LIST}/page-${i + 1}`, {}];
    return h('li', { key: i }, h('a', { href, ...mark }, i + 1));
  });
  const next = h('li', { key: 'next' }, h('a', { href: `${LIST}/page-2`, rel: 'next' }, 'Next'));
  const cards = h(Cards, { cards: l.cards, now: f.month, level: 2 });
  return document(
    h(
      Page,
      { f, head: headOfList(f, l) },
      h('h1', null, l.title),
      h('p', { className: 'intro' }, l.intro),
      h('section', { className: 'listing' }, cards),
      h('nav', { className: 'page-links', 'aria-label': 'Pages' }, h('ul', null, [...pages, next])),
    ),
  );
}
