import { z } from 'zod';
import { blockShape } from '../../design/block.ts';
import type { EntryView } from '../../design/values.ts';
import { type CompiledPattern, compilePattern } from '../../pattern/compile.ts';
import { typeInWords } from '../../pattern/types.ts';
import { holderOf, itemsOf } from '../bound.ts';
import type { BlockCompiler, BlockSurroundings, Holder } from '../context.ts';
import { defineBlock, heading } from '../definition.ts';
import { classes } from '../html.ts';
import { escapeHtml } from '../../text.ts';

/** So many items are drawn at most. */
const MOST = 200;

const TAGS = { list: ['ul', 'li'], numbered: ['ol', 'li'], plain: ['', ''] } as const;

/** The same blocks for each of several values, items of a group, or entries: they read `item`. */
export const repeat = defineBlock({
  block: 'repeat',
  label: 'Repeat',
  doc: 'The same blocks for each of several values, items of a group, or entries: they read “item”.',
  spec: {
    over: z.string(),
    as: z.enum(['list', 'numbered', 'plain']).default('list'),
    limit: z.int().min(1).max(MOST).optional(),
    heading,
    blocks: z.array(blockShape),
  },
  holds: { over: 'expression' },
  compile: ({ over, as, limit = MOST, heading, blocks, style }, c) => {
    const each = itemsRead(over, c);
    if (!each) return () => '';
    const { render, needs } = c.eachItem(blocks, 'blocks', each.item);
    for (const chain of needs)
      if (each.bound) c.reads({ ...each.bound, chain: [...each.bound.chain, ...chain] });
    const [list, item] = TAGS[as];
    const title = heading ? `<h2>${escapeHtml(heading)}</h2>` : '';
    const open = `<section${classes('repeat', style)}>${title}${list && `<${list}>`}`;
    const close = `${list && `</${list}>`}</section>`;
    const [start, end] = item === '' ? ['', ''] : [`<${item}>`, `</${item}>`];
    return (scope) => {
      const items = ([each.value(scope) ?? []].flat() as unknown[]).slice(0, limit);
      if (items.length === 0) return '';
      if (needs.length > 0) scope.prefetch(items as EntryView[], needs);
      const page = scope.repeating();
      let out = '';
      for (const value of items) {
        page.roots.item = value;
        const html = render(page);
        if (html !== '') out += start + html + end;
      }
      return out === '' ? '' : open + out + close;
    };
  },
  example: {
    block: {
      block: 'repeat',
      over: 'rowers',
      heading: 'Crew',
      blocks: [{ block: 'text', text: '{item.name}[, seat {item.seat}]' }],
    },
    html: '<section class="repeat"><h2>Crew</h2><ul><li><p>Ann, seat 1</p></li><li><p>Bo</p></li></ul></section>',
  },
});

/** What is repeated over, and what blocks read of each item; null with an issue where it is none. */
function itemsRead(
  over: string,
  c: BlockCompiler,
): {
  value: CompiledPattern['value'];
  item: BlockSurroundings;
  bound: ReturnType<BlockCompiler['found']>;
} | null {
  c.pattern(`{${over}}`, 'over');
  const { pattern } = compilePattern(`{${over}}`, c.env, 'value');
  if (!pattern) return null;
  const { type, value } = pattern;
  if (!type.many) {
    const message = `"${over}" is ${typeInWords(type)}: there is one at most.`;
    c.fail('wrong-kind', 'over', message, 'Repeat over something that there can be several of.');
    return null;
  }
  const bound = c.found(over);
  return { value, bound, item: itemSurroundings(over, c) };
}

/** What blocks that repeat over something read: all that stands around, and `item`. */
export function itemSurroundings(
  over: string,
  c: Pick<BlockCompiler, 'env' | 'type' | 'found' | 'otherSide' | 'typeOf' | 'typeByKey'>,
): BlockSurroundings {
  const { pattern } = compilePattern(`{${over}}`, c.env, 'value');
  const bound = c.found(over);
  const side = bound ? null : c.otherSide(over);
  const other = side && c.typeOf(side.otherSide!.type);
  const fields = bound ? itemsOf(bound.field, (key) => c.typeByKey(key)) : null;
  const item: Holder | null = fields ?? (other ? holderOf(other) : null);
  if (!pattern) return { env: c.env, type: c.type, item };
  const type = { ...pattern.type, many: false };
  const root = { type: () => type, read: (owner: unknown) => owner };
  const roots = new Map([...c.env.roots, ['item', root] as const]);
  return { env: { ...c.env, roots }, type: c.type, item };
}
