import { z } from 'zod';
import { defineBlock, heading } from '../definition.ts';
import { cardList } from '../card-list.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { isReference } from '../../design/field-values.ts';
import type { Member } from '../../pattern/types.ts';
import type { Bound, RenderScope } from '../context.ts';
import type { EntryView } from '../../design/values.ts';

/** The live entries that a reference leads to, or that lead here by one, as cards. */
export const cards = defineBlock({
  block: 'cards',
  label: 'Entry cards',
  doc: 'The live entries that a reference leads to, or that lead here by one, as cards.',
  spec: {
    field: z.string(),
    card: z.string().optional(),
    heading,
  },
  holds: { field: 'field', card: 'template' },
  compile: ({ field, card, heading, style }, c) => {
    const other = c.otherSide(field);
    const bound = other ? null : c.field(field, 'field', isReference, 'a reference');
    if (bound) c.reads(bound);
    const { render, needs } = c.card(card, 'card');
    const open = `<section${classes('entry-cards', style)}>${heading ? `<h2>${escapeHtml(heading)}</h2>` : ''}`;
    return (scope) => {
      const entries = other ? leadingHere(other, scope) : ledTo(bound, scope);
      const html = cardList(entries, render, needs, scope);
      return html === '' ? '' : `${open}${html}</section>`;
    };
  },
  example: {
    block: { block: 'cards', field: 'friends', heading: 'Friends' },
    html: '<section class="entry-cards"><h2>Friends</h2><ul class="cards"><li><h3><a href="/seeds/red-bean">Red bean</a></h3></li></ul></section>',
  },
});

/** The live entries that a reference of the page's own entry leads to. */
function ledTo(bound: Bound | null, scope: RenderScope): EntryView[] {
  return (bound?.read(scope) ?? [])
    .map((id) => scope.entry(String(id)))
    .filter((e): e is EntryView => e !== null);
}

/** The live entries that lead to the page's own entry. */
function leadingHere(side: Member, scope: RenderScope): EntryView[] {
  const found = scope.own ? side.read(scope.own, scope) : null;
  return found === null ? [] : ([found].flat() as EntryView[]);
}
