import { z } from 'zod';
import { rootOf } from '../../design/language-spec.ts';
import { SEARCH_PARAMETER } from '../../listing/visitors.ts';
import { escapeHtml } from '../../text.ts';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';
import { wordsOf } from '../words.ts';

/** A field in which visitors search a listing, wherever it stands. */
export const searchBox = defineBlock({
  block: 'searchBox',
  label: 'Search box',
  doc: 'A field in which visitors search a listing, wherever it stands: what they find is shown on the listing’s own page.',
  spec: {
    listing: z.string(),
    /** What stands before the field. */
    label: z.string().max(80).optional(),
  },
  holds: { listing: 'listing' },
  compile: ({ listing: key, label, style }, c) => {
    if (!c.listing(key, 'listing')) return () => '';
    const listing = c.design.listings.find((l) => l.key === key);
    const isFront =
      c.design.site.front && 'listing' in c.design.site.front
        ? c.design.site.front.listing === key
        : false;
    const address = isFront ? rootOf(c.design) : listing?.address;
    if (address === undefined || (listing?.visitor?.search.length ?? 0) === 0) {
      const name = listing?.label ?? key;
      const fix = 'Let visitors search it, or name another listing.';
      c.fail('not-searched', 'listing', `Visitors cannot search ${name}.`, fix);
      return () => '';
    }
    const open = `<form${classes('search-box', style)} action="${escapeHtml(address)}" role="search"`;
    return ({ language }) => {
      const words = wordsOf(language);
      const text = escapeHtml(label ?? words.search);
      return `${open} aria-label="${text}"><label>${text} <input type="search" name="${SEARCH_PARAMETER}" maxlength="200"></label> <button type="submit">${words.find}</button></form>`;
    };
  },
  example: {
    block: { block: 'searchBox', listing: 'all', label: 'Find a note' },
    html: '<form class="search-box" action="/all" role="search" aria-label="Find a note"><label>Find a note <input type="search" name="q" maxlength="200"></label> <button type="submit">Find</button></form>',
  },
});
