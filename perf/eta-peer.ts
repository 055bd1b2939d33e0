// The measured pages as templates of the library eta, compiled beforehand.
import { Eta } from 'eta';
import { escapeHtml, limitText } from '@/core/text.ts';
import {
  MONTHS,
  WIDTHS,
  dayOf,
  headOfGuide,
  headOfList,
  headingId,
  textOf,
  wordsOf,
} from './by-hand.ts';
import { type FrameData, type GuideData, LIST, type ListData } from './demo-pages.ts';

const CARDS = `<ul class="cards"><% for (let i = 0; i < it.cards.length; i++) { const c = it.cards[i], p = c.picture, w = Math.min(320, p.width), most = Math.min(2 * w, p.width); %><li><div class="packet"><figure class="picture"><img src="/media/<%= p.hash %>/<%= w %>" srcset="<% for (const s of it.WIDTHS) { if (s !== 160) { %>, <% } %>/media/<%= p.hash %>/<%= s %> <%= Math.min(s, p.width) %>w<% if (s >= most) break; } %>" sizes="(max-width: <%= w %>px) 100vw, <%= w %>px" alt="<%= p.alt %>" width="<%= w %>" height="<%= Math.round(w * p.height / p.width) %>"<% if (i > 2) { %> loading="lazy"<% } %>></figure><p class="kicker"><%= c.family %></p><h3<% if (it.l) { %> aria-level="2"<% } %>><a href="<%= c.path %>"><%= c.title %></a></h3><p><%= it.limitText(c.summary, 90) %></p><% const a = Number(c.sowFrom.slice(5, 7)), b = Number(c.sowUntil.slice(5, 7)); %><div class="months" role="img" aria-label="Sow: <%= it.MONTHS[a - 1] %><% if (a !== b) { %> to <%= it.MONTHS[b - 1] %><% } %>"><% for (let m = 1; m <= 12; m++) { const on = a <= b ? a <= m && m <= b : m >= a || m <= b, now = m === it.f.month; %><i<% if (on || now) { %> class="<% if (on) { %>on<% } if (on && now) { %> <% } if (now) { %>now<% } %>"<% } %> title="<%= it.MONTHS[m - 1] %>"><%= it.MONTHS[m - 1][0] %></i><% } %></div></div></li><% } %></ul>`;

const page = (main: string): string =>
  `<!DOCTYPE html>
<html lang="<%= it.f.language %>">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title><%= it.head.title %></title><meta name="description" content="<%= it.head.description %>"><link rel="canonical" href="<%= it.f.url %><%= it.head.path %>"><% for (const s of it.head.spoken) { %><link rel="alternate" hreflang="<%= s.language %>" href="<%= it.f.url %><%= s.path %>"><% } %><meta property="og:title" content="<%= it.head.title %>"><meta property="og:description" content="<%= it.head.description %>"><meta property="og:type" content="<%= it.head.type %>"><meta property="og:site_name" content="<%= it.f.name %>"><meta property="og:locale" content="<%= it.f.language.replace('-', '_') %>"><meta property="og:url" content="<%= it.f.url %><%= it.head.path %>"><link rel="stylesheet" href="/style/<%= it.f.css %>.css"></head>
<body><a class="skip" href="#content">Skip to content</a><header class="site-header"><a href="/" class="brand"><%= it.f.name %></a><nav class="menu" aria-label="Main"><ul><% for (const m of it.f.menu) { %><li><a href="<%= m.path %>"<% if (m.path === it.head.path) { %> aria-current="page"<% } else if (it.head.path.startsWith(m.path + '/')) { %> class="above"<% } %>><%= m.words %></a></li><% } %></ul></nav><form class="search-box" action="/search" role="search" aria-label="Search"><label>Search <input type="search" name="q" maxlength="200"></label> <button type="submit">Find</button></form></header><main id="content">${main}</main><footer class="site-footer"><p><%= it.f.name %>. <%= it.f.strapline %></p><p><%= it.f.contact %></p><a href="<%= it.f.letters %>">Write to us</a><nav class="languages" aria-label="Languages"><ul><% for (const s of it.head.spoken) { %><li><a href="<%= s.path %>" hreflang="<%= s.language %>" lang="<%= s.language %>"<% if (s.path === it.head.path) { %> aria-current="true"<% } %>><%= s.label %></a></li><% } %></ul></nav></footer></body>
</html>
`;

const GUIDE = page(
  `<div class="subjects kicker"><ul><li><%= it.g.topic %></li></ul></div><h1><%= it.g.title %></h1><p class="lead"><%= it.g.summary %></p><p class="facts"><%= it.dayOf(it.g.published) %> · <%= it.g.minutes %> min</p><nav class="contents" aria-label="On this page"><h2>On this page</h2><ul><% for (const n of it.g.body.content) { if (n.type === 'heading') { const words = it.wordsOf(n); %><li><a href="#<%= it.headingId(words) %>"><%= words %></a></li><% } } %></ul></nav><div class="rich-text"><%~ it.textOf(it.g.body) %></div><section class="entry-cards"><h2>Seed for this</h2>${CARDS}</section><nav class="beside" aria-label="More of the same"><ul><li><a href="<%= it.g.next.path %>" rel="next"><span class="label">Next</span> <%= it.g.next.title %></a></li></ul></nav>`,
);
const PAGES = page(
  `<h1><%= it.l.title %></h1><p class="intro"><%= it.l.intro %></p><section class="listing">${CARDS}</section><nav class="page-links" aria-label="Pages"><ul><% for (let n = 1; n <= it.l.pages; n++) { %><li><a href="<%= it.LIST %><% if (n > 1) { %>/page-<%= n %><% } %>"<% if (n === 1) { %> aria-current="page"<% } %>><%= n %></a></li><% } %><li><a href="<%= it.LIST %>/page-2" rel="next">Next</a></li></ul></nav>`,
);

const eta = new Eta({
  autoEscape: true,
  autoTrim: false,
  escapeFunction: (value) => escapeHtml(String(value)),
});
const [guide, list] = [eta.compile(GUIDE), eta.compile(PAGES)];
const HELP = { LIST, MONTHS, WIDTHS, dayOf, headingId, limitText, textOf, wordsOf };

/** The page of a guide. */
export function guideByEta(f: FrameData, g: GuideData): string {
  return guide.call(eta, { ...HELP, f, g, cards: g.cards, head: headOfGuide(f, g) });
}

/** The first page of the list. */
export function listByEta(f: FrameData, l: ListData): string {
  return list.call(eta, { ...HELP, f, l, cards: l.cards, head: headOfList(f, l) });
}
