import { z } from 'zod';
import { escapeHtml } from '../../text.ts';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';
import { listHtml } from '../menu-item.ts';

/** A menu, with what of it is live; nothing where nothing is. */
export const menu = defineBlock({
  block: 'menu',
  label: 'Menu',
  doc: 'A menu, with what of it is live; the page at hand is marked.',
  spec: {
    menu: z.string(),
    /** What it is called where pages are read out; the menu's own name where left out. */
    label: z.string().optional(),
  },
  holds: { menu: 'template' },
  compile: ({ menu: key, label, style }, c) => {
    const found = c.menu(key, 'menu');
    if (!found) return () => '';
    const name = escapeHtml(label ?? found.label);
    const open = `<nav${classes('menu', style)} aria-label="${name}">`;
    return (scope) => {
      const list = listHtml(found.items(scope));
      return list === '' ? '' : `${open}${list}</nav>`;
    };
  },
  example: {
    block: { block: 'menu', menu: 'main', label: 'Main' },
    html: '<nav class="menu" aria-label="Main"><ul><li><a href="/early">Early</a></li><li><a href="/seeds/blue-pea" aria-current="page">Blue pea</a></li></ul></nav>',
  },
});
