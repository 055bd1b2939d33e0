// The measured pages as a person would write them: words put one after the other.
import { slugText } from '@/core/pattern/slug.ts';
import { escapeHtml, limitText } from '@/core/text.ts';
import type { CardData, FrameData, GuideData, ListData, Spoken, TextNode } from './demo-pages.ts';
import { LIST } from './demo-pages.ts';

/** Widths that pictures are made in, px. */
export const WIDTHS = [160, 320, 480, 640, 800, 1200, 1600, 2400];
/** The months by name. */
export const MONTHS =
  'January February March April May June July August September October November December'.split(
    ' ',
  );
const dates = new Intl.DateTimeFormat('en-IE', { dateStyle: 'long', timeZone: 'Europe/Dublin' });

/** What the head of a page says. */
export interface Head {
  title: string;
  description: string;
  path: string;
  type: string;
  spoken: Spoken[];
}

/** A whole page: its head, and the frame around what it shows. */
function page(f: FrameData, head: Head, main: string): string {
  const { title, description, path, type, spoken } = head;
  const [t, d] = [escapeHtml(title), escapeHtml(description)];
  const [name, url] = [escapeHtml(f.name), escapeHtml(f.url + path)];
  let menu = '';
  for (const item of f.menu) {
    const isIn = path.startsWith(`${item.path}/`);
    const mark = item.path === path ? ' aria-current="page"' : isIn ? ' class="above"' : '';
    menu += `<li><a href="${escapeHtml(item.path)}"${mark}>${escapeHtml(item.words)}</a></li>`;
  }
  let [alternates, languages] = ['', ''];
  for (const { language, label, path: to } of spoken) {
    alternates += `<link rel="alternate" hreflang="${language}" href="${escapeHtml(f.url + to)}">`;
    const current = to === path ? ' aria-current="true"' : '';
    languages += `<li><a href="${escapeHtml(to)}" hreflang="${language}" lang="${language}"${current}>${escapeHtml(label)}</a></li>`;
  }
  return `<!DOCTYPE html>
<html lang="${f.language}">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${t}</title><meta name="description" content="${d}"><link rel="canonical" href="${url}">${alternates}<meta property="og:title" content="${t}"><meta property="og:description" content="${d}"><meta property="og:type" content="${type}"><meta property="og:site_name" content="${name}"><meta property="og:locale" content="${f.language.replace('-', '_')}"><meta property="og:url" content="${url}"><link rel="stylesheet" href="/style/${f.css}.css"></head>
<body><a class="skip" href="#content">Skip to content</a><header class="site-header"><a href="/" class="brand">${name}</a><nav class="menu" aria-label="Main"><ul>${menu}</ul></nav><form class="search-box" action="/search" role="search" aria-label="Search"><label>Search <input type="search" name="q" maxlength="200"></label> <button type="submit">Find</button></form></header><main id="content">${main}</main><footer class="site-footer"><p>${name}. ${escapeHtml(f.strapline)}</p><p>${escapeHtml(f.contact)}</p><a href="${escapeHtml(f.letters)}">Write to us</a><nav class="languages" aria-label="Languages"><ul>${languages}</ul></nav></footer></body>
</html>
`;
}

function monthsOf({ sowFrom, sowUntil }: CardData, now: number): string {
  const [a, b] = [Number(sowFrom.slice(5, 7)), Number(sowUntil.slice(5, 7))];
  let cells = '';
  for (let m = 1; m <= 12; m++) {
    const isOn = a <= b ? a <= m && m <= b : m >= a || m <= b;
    const name = MONTHS[m - 1]!;
    const mark = isOn
      ? m === now
        ? ' class="on now"'
        : ' class="on"'
      : m === now
        ? ' class="now"'
        : '';
    cells += `<i${mark} title="${name}">${name[0]}</i>`;
  }
  const words = a === b ? MONTHS[a - 1] : `${MONTHS[a - 1]} to ${MONTHS[b - 1]}`;
  return `<div class="months" role="img" aria-label="Sow: ${words}">${cells}</div>`;
}

function pictureOf({ picture: { hash, width: px, height, alt } }: CardData, nth: number): string {
  const width = Math.min(320, px);
  const most = Math.min(2 * width, px);
  let srcset = '';
  for (const step of WIDTHS) {
    srcset += `${srcset === '' ? '' : ', '}/media/${hash}/${step} ${Math.min(step, px)}w`;
    if (step >= most) break;
  }
  const lazy = nth > 3 ? ' loading="lazy"' : '';
  return `<figure class="picture"><img src="/media/${hash}/${width}" srcset="${srcset}" sizes="(max-width: ${width}px) 100vw, ${width}px" alt="${escapeHtml(alt)}" width="${width}" height="${Math.round((width * height) / px)}"${lazy}></figure>`;
}

function cardsOf(cards: CardData[], now: number, level: string): string {
  let out = '<ul class="cards">';
  for (let i = 0; i < cards.length; i++) {
    const c = cards[i]!;
    out += `<li><div class="packet">${pictureOf(c, i + 1)}<p class="kicker">${escapeHtml(c.family)}</p><h3${level}><a href="${escapeHtml(c.path)}">${escapeHtml(c.title)}</a></h3><p>${escapeHtml(limitText(c.summary, 90))}</p>${monthsOf(c, now)}</div></li>`;
  }
  return `${out}</ul>`;
}

/** The id of a heading. */
export const headingId = (words: string): string => `body-${slugText(words, 'en-IE')}`;
/** The words of a node. */
export const wordsOf = (n: TextNode): string => n.text ?? (n.content ?? []).map(wordsOf).join('');

/** The words of a tip. */
export const tipOf = (n: TextNode): string =>
  Object.values(n.attrs!.values!).find((value) => typeof value === 'string')!;

function nodes(content: TextNode[] = []): string {
  let out = '';
  for (const n of content) out += node(n);
  return out;
}

function node(n: TextNode): string {
  const style = n.attrs?.style ? ` class="style-${n.attrs.style}"` : '';
  switch (n.type) {
    case 'text': {
      const words = escapeHtml(n.text!);
      const mark = n.marks?.[0] as TextNode | undefined;
      return mark ? `<span class="style-${mark.attrs!.style}">${words}</span>` : words;
    }
    case 'paragraph':
      return `<p${style}>${nodes(n.content)}</p>`;
    case 'heading':
      return `<h${n.attrs!.level} id="${headingId(wordsOf(n))}">${nodes(n.content)}</h${n.attrs!.level}>`;
    case 'table':
      return `<table><thead>${node(n.content![0]!)}</thead><tbody>${nodes(n.content!.slice(1))}</tbody></table>`;
    case 'tableRow':
      return `<tr>${nodes(n.content)}</tr>`;
    case 'tableHeader':
      return `<th scope="col">${nodes(n.content![0]!.content)}</th>`;
    case 'tableCell':
      return `<td>${nodes(n.content![0]!.content)}</td>`;
    default:
      return `<div class="part"><div class="tip"><p>${escapeHtml(tipOf(n))}</p></div></div>`;
  }
}

/** A text as HTML. */
export const textOf = (body: TextNode): string => nodes(body.content);

/** The day of an instant. */
export const dayOf = (at: number): string => dates.format(at);

/** What the head of a guide's page says. */
export function headOfGuide(f: FrameData, g: GuideData): Head {
  const title = `${g.title} · ${f.name}`;
  return { title, description: g.summary, path: g.path, type: 'article', spoken: g.spoken };
}

/** What the head of the list says. */
export function headOfList(f: FrameData, l: ListData): Head {
  const title = `${l.title} · ${f.name}`;
  const { description, spoken } = l;
  return { title, description, path: LIST, type: 'website', spoken };
}

/** The page of a guide. */
export function guideByHand(f: FrameData, g: GuideData): string {
  let contents = '';
  for (const n of g.body.content!)
    if (n.type === 'heading') {
      const words = wordsOf(n);
      contents += `<li><a href="#${headingId(words)}">${escapeHtml(words)}</a></li>`;
    }
  const title = escapeHtml(g.title);
  const main = `<div class="subjects kicker"><ul><li>${escapeHtml(g.topic)}</li></ul></div><h1>${title}</h1><p class="lead">${escapeHtml(g.summary)}</p><p class="facts">${dayOf(g.published)} · ${g.minutes} min</p><nav class="contents" aria-label="On this page"><h2>On this page</h2><ul>${contents}</ul></nav><div class="rich-text">${textOf(g.body)}</div><section class="entry-cards"><h2>Seed for this</h2>${cardsOf(g.cards, f.month, '')}</section><nav class="beside" aria-label="More of the same"><ul><li><a href="${escapeHtml(g.next.path)}" rel="next"><span class="label">Next</span> ${escapeHtml(g.next.title)}</a></li></ul></nav>`;
  return page(f, headOfGuide(f, g), main);
}

/** The first page of the list. */
export function listByHand(f: FrameData, l: ListData): string {
  let pages = '';
  for (let n = 1; n <= l.pages; n++)
    pages +=
      n === 1
        ? `<li><a href="${LIST}" aria-current="page">1</a></li>`
        : `<li><a href="${LIST}/page-${n}">${n}</a></li>`;
  const main = `<h1>${escapeHtml(l.title)}</h1><p class="intro">${escapeHtml(l.intro)}</p><section class="listing">${cardsOf(l.cards, f.month, ' aria-level="2"')}</section><nav class="page-links" aria-label="Pages"><ul>${pages}<li><a href="${LIST}/page-2" rel="next">Next</a></li></ul></nav>`;
  return page(f, headOfList(f, l), main);
}
