import { z } from 'zod';
import { blockShape } from '../../design/block.ts';
import { escapeHtml } from '../../text.ts';
import { defineBlock, heading } from '../definition.ts';
import { classes } from '../html.ts';
import { wordsOf } from '../words.ts';

/** Cards in one row that is pushed sideways: by touch, wheel or keys, and by buttons of its own. */
export const row = defineBlock({
  block: 'row',
  label: 'Sideways row',
  doc: 'Cards in one row that is pushed sideways, by touch, wheel, keys or buttons; nothing without cards.',
  scripted: true,
  spec: {
    /** What it is called where pages are read out. */
    label: z.string(),
    heading,
    /** Whether it moves by itself: never where less motion is asked for, and it can be stopped. */
    moves: z.boolean().optional().meta({ title: 'Moves by itself' }),
    blocks: z.array(blockShape),
  },
  compile: ({ label, heading, moves, blocks, style }, c) => {
    const inner = c.blocks(blocks, 'blocks');
    const title = heading ? `<h2>${escapeHtml(heading)}</h2>` : '';
    const name = ` aria-label="${escapeHtml(label)}"`;
    const open = `<section${classes('row', moves && 'row-moves', style)}${name}>${title}`;
    const track = `<div class="row-track" role="group"${name} tabindex="0"`;
    return (scope) => {
      const html = inner(scope);
      if (html === '') return '';
      const { back, further } = wordsOf(scope.language);
      const stop = moves ? stopSwitch(scope.language) : '';
      // What a script calls the buttons that it makes where the style cannot.
      return `${open}${stop}${track} data-back="${back}" data-further="${further}">${html}</div></section>`;
    };
  },
  example: {
    block: { block: 'row', label: 'Friends', blocks: [{ block: 'cards', field: 'friends' }] },
    html: '<section class="row" aria-label="Friends"><div class="row-track" role="group" aria-label="Friends" tabindex="0" data-back="Back" data-further="Further"><section class="entry-cards"><ul class="cards"><li><h3><a href="/seeds/red-bean">Red bean</a></h3></li></ul></section></div></section>',
  },
});

/** Stops a row that moves by itself; it needs no script. */
function stopSwitch(language: string): string {
  const words = escapeHtml(wordsOf(language).standStill);
  return `<label class="row-stop"><input type="checkbox"> ${words}</label>`;
}
