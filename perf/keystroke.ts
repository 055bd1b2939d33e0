import { blocksWithin } from '@/core/design/block-ids.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import type { SiteView } from '@/server/queries/site-view.ts';
import { templateOutcome } from '@/server/queries/template-outcome.ts';
import { type PerfRow, median } from './measure.ts';

/** The most that what a template gives may take after a key was pressed in it, ms. */
const TARGET_MS = 100;
const KEYS = 25;

/** What a template gives for its entry while a pattern of it is typed, at 100,000 entries. */
export function measureKeystroke(view: SiteView): PerfRow {
  const at = Date.now();
  const looking = { at, past: false, seeing: 'bench' } as const;
  const template = view.at(at)!.site.design.templates.find(({ key }) => key === 'variety-page')!;
  const heading = [...blocksWithin(template.blocks)].find(({ block }) => block === 'heading')!;
  const part = `templates/${template.id}/blocks/${heading.id}`;
  const took = Array.from({ length: KEYS }, (_, i) => {
    const now = `${String(heading.text)} ${'abcdefghijklmnopqrstuvwxyz'.slice(0, i + 1)}`;
    const step = { do: 'set', part, property: 'text', was: String(heading.text), now } as const;
    const started = performance.now();
    const outcome = templateOutcome(
      view,
      COMMAND_LINE,
      { id: template.id, steps: [step], specimen: null },
      looking,
    );
    if (!outcome?.html?.includes(now.slice(-i - 1))) throw new Error('The key is not shown.');
    return performance.now() - started;
  });
  const ms = median(took);
  return {
    name: 'what a template gives after a key was pressed in it, at 100,000 entries (ms)',
    value: Math.round(ms),
    unit: 'ms',
    target: `≤ ${TARGET_MS}`,
    met: ms <= TARGET_MS,
  };
}
