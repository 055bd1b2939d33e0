import { and, asc, eq, gt, or } from 'drizzle-orm';
import { describe } from '@/core/design-edit/describe.ts';
import type { DesignEdit } from '@/core/design-edit/edit.ts';
import { foldEdits } from '@/core/design-edit/fold.ts';
import { type Design, designSpec } from '@/core/design/spec.ts';
import { formatStyled } from '@/core/pattern/date-format.ts';
import type { Instant } from '@/core/time/interval.ts';
import { designVersion } from '../../db/schema.ts';
import { personName } from '../../store/persons.ts';
import { type CommandContext, Refused } from '../definition.ts';

/** The edits that a release took, as they took hold. */
export function editsOf({ edits }: { edits: string | null }): DesignEdit[] {
  return edits === null ? [] : (JSON.parse(edits) as DesignEdit[]);
}

/** The releases that come after one, in their order; `id` counts among those of one instant. */
function releasesAfter({ connection }: CommandContext, starts: Instant, id: number) {
  const { tables } = connection;
  const later = or(
    gt(designVersion.starts, starts),
    and(eq(designVersion.starts, starts), gt(designVersion.id, id)),
  );
  return tables
    .select()
    .from(designVersion)
    .where(later)
    .orderBy(asc(designVersion.starts), asc(designVersion.id))
    .all();
}

/**
 * Works out anew the designs of the releases planned for after one, on top of the design given.
 * @throws Refused, naming the release that does not apply any more
 */
export function refoldAfter(
  context: CommandContext,
  { starts, id, design }: { starts: Instant; id: number; design: Design },
): void {
  let before = design;
  for (const release of releasesAfter(context, starts, id)) {
    const edits = editsOf(release).map((edit, i) => ({ id: i, edit }));
    const folded = foldEdits(before, edits);
    const [stuck] = folded.stuck;
    if (stuck)
      throw new Refused(inTheWay(context, release, edits[stuck.id]!.edit), ...stuck.issues);
    before = folded.design;
    const applied = JSON.stringify(folded.applied.map(({ edit }) => edit));
    context.connection.tables
      .update(designVersion)
      .set({ spec: JSON.stringify(before), edits: applied })
      .where(eq(designVersion.id, release.id))
      .run();
  }
}

function inTheWay(
  { connection, site }: CommandContext,
  { starts, author, spec }: { starts: Instant; author: string; spec: string },
  edit: DesignEdit,
): Refused['issues'][number] {
  const { language, zone } = site.design.site;
  const when = formatStyled(starts, 'medium', language, zone);
  const what = describe(designSpec.parse(JSON.parse(spec)), edit);
  return {
    code: 'planned-release',
    message: `The release that ${personName(connection, author)} planned for ${when} would not apply any more: “${what}”.`,
    fix: 'Take that one back first, or release this after it.',
  };
}
