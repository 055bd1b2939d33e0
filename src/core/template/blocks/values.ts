import { z } from 'zod';
import type { FanValue } from '../../listing/fan-out.ts';
import { escapeHtml } from '../../text.ts';
import { defineBlock, heading } from '../definition.ts';
import { classes } from '../html.ts';

/** Links to a listing's pages for each value: all of them, or those within the one at hand. */
export const values = defineBlock({
  block: 'values',
  label: 'Pages for each value',
  doc: 'Links to a listing’s pages for each value, with how many entries each has; on the page of one of them those within it.',
  spec: {
    listing: z.string(),
    heading,
    /** Whether it says how many entries each has. */
    counts: z.boolean().default(true).meta({ title: 'How many' }),
  },
  holds: { listing: 'listing' },
  compile: ({ listing: key, heading, counts, style }, c) => {
    if (!c.listing(key, 'listing')) return () => '';
    const listing = c.design.listings.find((l) => l.key === key);
    if (!listing?.each)
      c.fail(
        'not-each',
        'listing',
        `${listing?.label ?? key} has no page for each value.`,
        'Let it have some, or name another listing.',
      );
    const title = heading ? `<h2>${escapeHtml(heading)}</h2>` : '';
    const open = `<section${classes('values', style)}>${title}`;
    return (scope) => {
      const { shown } = scope;
      const at = shown?.key === key ? (shown.value?.key ?? null) : null;
      const html = within(byParent(scope.values(key)), at, counts);
      return html === '' ? '' : `${open}${html}</section>`;
    };
  },
  example: {
    block: { block: 'values', listing: 'years' },
    html: '<section class="values"><ul><li><a href="/years/2026">2026</a> <span class="count">1</span></li></ul></section>',
  },
});

type ByParent = ReadonlyMap<string | null, FanValue[]>;

function byParent(all: readonly FanValue[]): ByParent {
  const found = new Map<string | null, FanValue[]>();
  for (const value of all) {
    const known = found.get(value.parent);
    if (known) known.push(value);
    else found.set(value.parent, [value]);
  }
  return found;
}

function within(all: ByParent, parent: string | null, counts: boolean): string {
  const items = (all.get(parent) ?? []).map(({ key, name, path, count }) => {
    const many = counts ? ` <span class="count">${count}</span>` : '';
    const link = `<a href="${escapeHtml(path)}">${escapeHtml(name)}</a>`;
    return `<li>${link}${many}${within(all, key, counts)}</li>`;
  });
  return items.length === 0 ? '' : `<ul>${items.join('')}</ul>`;
}
