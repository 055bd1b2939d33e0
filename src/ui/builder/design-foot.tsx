import type { ReactNode } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ReachInput } from '@/server/queries/reach.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { ReachPanel } from './reach/reach-panel.tsx';
import { isOvertaken, type ReleaseParts } from './use-release.tsx';

/** Below a screen of the design: what came of the last save, and what the next one would do. */
export function DesignFoot({
  release: { said, issues, panel },
  mend = [],
  reach,
  clock,
  children,
}: {
  release: ReleaseParts;
  /** What is to be mended first, where no line of the form says it. */
  mend?: Issue[];
  reach: ReachInput | null;
  clock: Clock;
  children?: ReactNode;
}) {
  return (
    <>
      <SaidLine said={said} />
      <Issues issues={issues} title="Not saved" answers />
      {panel}
      <Issues issues={mend.filter((issue) => !isOvertaken(issue))} title="To mend" />
      {children}
      <ReachPanel input={reach} clock={clock} />
    </>
  );
}
