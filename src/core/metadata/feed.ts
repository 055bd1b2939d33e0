import { escapeHtml } from '../text.ts';
import type { Instant } from '../time/interval.ts';

/** What a feed tells of one entry; addresses are absolute, instants in ms UTC. */
export interface FeedItem {
  /** A URN that stays the same as long as the entry is there, wherever it stands. */
  id: string;
  url: string;
  title: string;
  summary: string | null;
  author: string | null;
  published: Instant;
  updated: Instant;
}

/** The newest entries of a list for feed readers; addresses are absolute. */
export interface Feed {
  id: string;
  title: string;
  language: string;
  /** The site's name. */
  author: string;
  home: string;
  self: string;
  items: FeedItem[];
}

/** An Atom feed (RFC 4287). */
export function atomXml({ id, title, language, author, home, self, items }: Feed): string {
  const updated = items.reduce((latest, item) => Math.max(latest, item.updated), 0);
  const lines = [
    `<feed xmlns="http://www.w3.org/2005/Atom" xml:lang="${escapeHtml(language)}">`,
    `<id>${id}</id>`,
    `<title>${xml(title)}</title>`,
    `<updated>${iso(updated)}</updated>`,
    `<author><name>${xml(author)}</name></author>`,
    link('self', self, ' type="application/atom+xml"'),
    link('alternate', home, ' type="text/html"'),
    ...items.map(atomEntry),
    '</feed>',
  ];
  return `<?xml version="1.0" encoding="UTF-8"?>\n${lines.join('\n')}\n`;
}

function atomEntry({ id, url, title, summary, author, published, updated }: FeedItem): string {
  const by = author === null ? '' : `<author><name>${xml(author)}</name></author>`;
  const about = summary === null ? '' : `<summary>${xml(summary)}</summary>`;
  return (
    `<entry><id>${id}</id><title>${xml(title)}</title>${link('alternate', url)}` +
    `<published>${iso(published)}</published><updated>${iso(updated)}</updated>${by}${about}</entry>`
  );
}

/** A JSON Feed (jsonfeed.org, version 1.1). */
export function jsonFeed({ title, language, author, home, self, items }: Feed): string {
  return `${JSON.stringify(
    {
      version: 'https://jsonfeed.org/version/1.1',
      ...{ title, language, home_page_url: home, feed_url: self, authors: [{ name: author }] },
      items: items.map((item) => ({
        ...{ id: item.id, url: item.url, title: item.title },
        content_text: item.summary ?? item.title,
        ...(item.summary === null ? {} : { summary: item.summary }),
        date_published: iso(item.published),
        date_modified: iso(item.updated),
        ...(item.author === null ? {} : { authors: [{ name: item.author }] }),
      })),
    },
    null,
    2,
  )}\n`;
}

const link = (rel: string, href: string, more = ''): string =>
  `<link rel="${rel}"${more} href="${escapeHtml(href)}"/>`;
const iso = (at: Instant): string => new Date(at).toISOString();

/** Characters that no XML document may have (XML 1.0, 2.2). */
const NOT_XML = /[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu;
const xml = (text: string): string => escapeHtml(text.replace(NOT_XML, ''));
