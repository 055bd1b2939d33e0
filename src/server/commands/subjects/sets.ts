import type { Design } from '@/core/design/spec.ts';
import { foldEdits } from '@/core/design-edit/fold.ts';
import { openEdits } from '../../store/bench.ts';
import { type CommandContext, Refused } from '../definition.ts';

/** A subject set of the working design, by its id: one on the bench holds subjects already. */
export function setOf(
  { connection, site }: CommandContext,
  id: string,
): Design['subjectSets'][number] {
  const { design } = foldEdits(site.design, openEdits(connection));
  const set = design.subjectSets.find((s) => s.id === id);
  if (set) return set;
  throw new Refused({
    code: 'unknown-set',
    path: 'set',
    message: `There is no subject set "${id.slice(0, 60)}".`,
    fix: 'Choose another.',
  });
}
