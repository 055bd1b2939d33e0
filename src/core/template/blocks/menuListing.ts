import { z } from 'zod';
import { rootOf } from '../../design/language-spec.ts';
import { escapeHtml } from '../../text.ts';
import { defineBlock } from '../definition.ts';
import { below, menuItem } from '../menu-item.ts';

/** The pages of a listing in a menu. */
export const menuListing = defineBlock({
  block: 'menuListing',
  label: 'Listing',
  doc: 'The pages of a listing that has an address.',
  in: 'menu',
  spec: {
    listing: z.string(),
    /** Its name where left out. */
    text: z.string().optional(),
    blocks: below,
  },
  holds: { listing: 'listing', text: 'pattern' },
  compile: ({ listing: key, text, blocks }, c) => {
    const words = text === undefined ? null : c.pattern(text, 'text');
    const inner = c.blocks(blocks, 'blocks');
    if (!c.listing(key, 'listing')) return () => '';
    const { site, listings } = c.design;
    const { address, label } = listings.find((l) => l.key === key)!;
    const isFront = site.front && 'listing' in site.front && site.front.listing === key;
    const href = isFront ? rootOf(c.design) : address;
    if (href === undefined) {
      const message = `${label} has no address: there is no page to lead to.`;
      c.fail('no-address', 'listing', message, 'Give it one, or name another listing.');
      return () => '';
    }
    return menuItem((scope) => ({ href, words: words?.(scope) ?? escapeHtml(label) }), inner);
  },
  example: {
    block: { block: 'menuListing', listing: 'early' },
    html: '<li><a href="/early">Early</a></li>',
  },
});
