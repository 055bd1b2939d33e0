import { z } from 'zod';
import { blockShape } from '../../design/block.ts';
import { filterSpec } from '../../design/listing-spec.ts';
import type { Instant } from '../../time/interval.ts';
import { parseInstant } from '../../time/parse.ts';
import { compileTest } from '../entry-test.ts';
import { type BlockCompiler, PAGE_KINDS, type RenderScope } from '../context.ts';
import { defineBlock } from '../definition.ts';

/** Whether something holds as a page is drawn. */
type Test = (scope: RenderScope) => boolean;

/** Blocks that stand only where something holds: of the entry, the page or the instant. */
export const condition = defineBlock({
  block: 'condition',
  label: 'Condition',
  doc: 'Blocks that stand only where all that is asked here holds: of the entry, the page, the instant.',
  spec: {
    /** What the entry's fields must be: a condition or a group of them, as in a listing. */
    where: filterSpec.optional().meta({ title: 'Entry' }),
    /** Whose fields those are: the page's entry, or the item within a repetition. */
    of: z.enum(['page', 'item']).default('page'),
    page: z.array(z.enum(PAGE_KINDS)).min(1).optional(),
    /** A path: what stands at it, or below it. */
    path: z.string().regex(/^\//, 'A path starts with "/".').optional(),
    /** From when, and until when: ISO 8601, local in the site's zone or with an offset. */
    from: z.string().optional(),
    until: z.string().optional(),
    blocks: z.array(blockShape),
    otherwise: z.array(blockShape).default([]),
  },
  holds: { where: 'filter' },
  compile: ({ where, of, page, path, from, until, blocks, otherwise }, c) => {
    const tests: Test[] = [
      ...(where ? [compileTest(where, of, c)] : []),
      ...(page ? [({ page: { kind } }: RenderScope) => page.includes(kind)] : []),
      ...(path === undefined ? [] : [standsAt(path)]),
      ...(from === undefined && until === undefined ? [] : [during({ from, until }, c)]),
    ];
    const shown = c.blocks(blocks, 'blocks');
    const instead = c.blocks(otherwise, 'otherwise');
    return (scope) => (tests.every((test) => test(scope)) ? shown(scope) : instead(scope));
  },
  example: {
    block: {
      block: 'condition',
      where: { field: 'title', op: 'starts-with', value: 'blue' },
      blocks: [{ block: 'text', text: 'It is blue.' }],
    },
    html: '<p>It is blue.</p>',
  },
});

function standsAt(path: string): Test {
  const start = path.endsWith('/') ? path : `${path}/`;
  const whole = path === '/' ? path : path.replace(/\/$/, '');
  return ({ page }) => page.path === whole || (page.path?.startsWith(start) ?? false);
}

/** Half-open, and told to the page: it changes when either comes. */
function during(
  given: { from: string | undefined; until: string | undefined },
  c: BlockCompiler,
): Test {
  const read = (name: 'from' | 'until'): Instant | null => {
    const text = given[name];
    const at = text === undefined ? null : parseInstant(text, c.design.site.zone);
    if (text !== undefined && at === null)
      c.fail('wrong-value', name, `"${text}" is no instant.`, 'Write it like 2026-03-01T08:00.');
    return at;
  };
  const [from, until] = [read('from'), read('until')];
  return ({ at, validity }) => {
    validity.tell(from);
    validity.tell(until);
    return (from === null || from <= at) && (until === null || at < until);
  };
}
