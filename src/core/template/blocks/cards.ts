import { z } from 'zod';
import { defineBlock, heading } from '../definition.ts';
import { cardList } from '../card-list.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';
import { isReference } from '../../design/field-values.ts';
import { type EntryView, valuesOf } from '../../design/values.ts';

/** The entries a reference field points at, as cards; those not live are left out. */
export const cards = defineBlock({
  block: 'cards',
  label: 'Entry cards',
  doc: 'The entries a reference field points at, as cards; those not live are left out.',
  spec: {
    field: z.string(),
    card: z.string().optional(),
    heading,
  },
  holds: { field: 'field', card: 'template' },
  compile: ({ field, card, heading, style }, c) => {
    const bound = c.field(field, 'field', isReference, 'a reference');
    if (bound) c.needs.push([bound.id]);
    const { render, needs } = c.card(card, 'card');
    const open = `<section${classes('entry-cards', style)}>${heading ? `<h2>${escapeHtml(heading)}</h2>` : ''}`;
    return (scope) => {
      const ids = valuesOf(scope.own?.values ?? {}, bound?.id ?? '');
      const entries = ids
        .map((id) => scope.entry(String(id)))
        .filter((e): e is EntryView => e !== null);
      const html = cardList(entries, render, needs, scope);
      return html === '' ? '' : `${open}${html}</section>`;
    };
  },
  example: {
    block: { block: 'cards', field: 'friends', heading: 'Friends' },
    html: '<section class="entry-cards"><h2>Friends</h2><ul class="cards"><li><h3><a href="/seeds/red-bean">Red bean</a></h3></li></ul></section>',
  },
});
