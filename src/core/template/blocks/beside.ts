import { z } from 'zod';
import type { EntryView } from '../../design/values.ts';
import { nameOf } from '../../design/values.ts';
import { escapeHtml } from '../../text.ts';
import type { RenderScope } from '../context.ts';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';
import { wordsOf } from '../words.ts';

/** Links to the entries before and after the page's own, in the order of a listing it is in. */
export const beside = defineBlock({
  block: 'beside',
  label: 'Previous and next',
  doc: 'Links to the entries before and after this one, in the order of a listing that it is in.',
  spec: {
    listing: z.string(),
  },
  holds: { listing: 'listing' },
  compile: ({ listing, style }, c) => {
    if (!c.listing(listing, 'listing')) return () => '';
    const open = `<nav${classes('beside', style)} aria-label="`;
    return (scope) => {
      if (!scope.own) return '';
      const { previous, next } = scope.beside(listing, scope.own);
      const words = wordsOf(scope.language);
      const links =
        link(previous, 'prev', words.previous, scope) + link(next, 'next', words.next, scope);
      return links === '' ? '' : `${open}${escapeHtml(words.more)}"><ul>${links}</ul></nav>`;
    };
  },
  example: {
    block: { block: 'beside', listing: 'seeds' },
    html: '<nav class="beside" aria-label="More of the same"><ul><li><a href="/seeds/red-bean" rel="next"><span class="label">Next</span> Red bean</a></li></ul></nav>',
  },
});

/** A neighbour as a link; '' where there is none, or it has no page. */
function link(entry: EntryView | null, rel: string, words: string, scope: RenderScope): string {
  const path = entry && scope.pathOf(entry);
  if (!entry || path === null) return '';
  const label = `<span class="label">${escapeHtml(words)}</span>`;
  return `<li><a href="${escapeHtml(path)}" rel="${rel}">${label} ${escapeHtml(nameOf(entry))}</a></li>`;
}
