import type { Connection } from '../db/connection.ts';
import { releaseDesign as storeDesign } from '../store/design-store.ts';
import { derive } from '../store/derive.ts';
import { statement } from '../store/statement.ts';
import { raisePublic } from '../store/write.ts';
import { type Actor, permit } from './permit.ts';
import { Refusal, refusable } from './write-entry.ts';
import { type Issue, type Result } from '@/core/issue.ts';
import { type Design, designSpec } from '@/core/design/spec.ts';
import { compileSite } from '@/core/site/compile.ts';
import type { Instant } from '@/core/time/interval.ts';

/** A design edit: one type, listing or template put in place of the one with its key. */
export interface DesignEdit {
  part: 'types' | 'listings' | 'templates';
  key: string;
  /** The whole part as a site folder would give it. */
  spec: unknown;
}

/** A design with an edit applied; every problem is named. */
export function applyEdit(design: Design, { part, key, spec }: DesignEdit): Result<Design> {
  const list = design[part] as { key: string }[];
  if (!list.some((p) => p.key === key))
    return {
      ok: false,
      issues: [
        {
          code: 'unknown-part',
          message: `There is no "${key}" in the design any more.`,
          fix: 'Reload the page.',
        },
      ],
    };
  const parsed = designSpec.safeParse({
    ...design,
    [part]: list.map((p) => (p.key === key ? spec : p)),
  });
  if (!parsed.success) {
    const issues = parsed.error.issues.map((i): Issue => ({
      code: 'wrong-form',
      path: `${part}/${key}/${i.path.slice(2).join('/')}`,
      message: i.message,
    }));
    return { ok: false, issues };
  }
  const { issues } = compileSite(parsed.data);
  return issues.length > 0 ? { ok: false, issues } : { ok: true, value: parsed.data };
}

/** Releases an edited design at once; addresses move, and former ones lead on. */
export function releaseEdit(
  connection: Connection,
  actor: Actor,
  edit: DesignEdit,
  wallClock: Instant,
): Result<{ at: Instant }> {
  permit(actor, 'change-design');
  return refusable(connection, wallClock, (at, before) => {
    const edited = applyEdit(before.design, edit);
    if (!edited.ok) throw new Refusal(edited.issues);
    storeDesign(connection, edited.value, at, actor.name, at);
    const site = compileSite(edited.value).site;
    const touched = statement(connection, 'SELECT id FROM entry ORDER BY created, id')
      .pluck()
      .all() as string[];
    const { refusals } = derive(connection, { site, settled: at, touched });
    const cancelled = refusals.filter((r) => r.cancelled && r.at === at);
    if (cancelled.length > 0)
      throw new Refusal(
        cancelled
          .slice(0, 10)
          .map(({ entry, code, message, fix }) => ({ code, message: `${entry}: ${message}`, fix })),
      );
    raisePublic(connection, ['design', ...edited.value.types.map((t) => `type:${t.key}`)]);
    return { at };
  });
}
