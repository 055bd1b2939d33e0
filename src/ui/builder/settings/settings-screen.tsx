'use client';

import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { SettingsDetail, SettingsOutcome } from '@/server/queries/settings.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { LoadFolder } from '../start/load-folder.tsx';
import { instantWords } from '../format.ts';
import { lookingOf } from '../looking.ts';
import { OnBench } from '../on-bench.tsx';
import { DesignFoot } from '../design-foot.tsx';
import { reachOf } from '../reach/reach-of.ts';
import { PatternWorldProvider } from '../pattern-world.tsx';
import { Panes } from '../panes.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { useDesignReadOnly, useMay } from '../rights.tsx';
import { useEdits } from '../use-edits.ts';
import { useOutcome } from '../use-outcome.ts';
import { DesignTense, useRelease } from '../use-release.tsx';
import { Shifted } from './shifted.tsx';
import { SaveSite } from './save-site.tsx';
import { SiteForm } from './site-form.tsx';

/** What holds for the whole site, with the page at "/" beside it. */
export function SettingsScreen({
  detail,
  outcome: first,
  clock,
}: {
  detail: SettingsDetail;
  outcome: SettingsOutcome;
  clock: Clock;
}) {
  const edits = useEdits('site', detail.spec);
  const { spec, changed, steps } = edits;
  const { outcome, problem } = useOutcome<SettingsOutcome>(
    'settings',
    { ...lookingOf(clock), steps },
    first,
    changed,
  );
  const readOnly = useDesignReadOnly(clock);
  const mayLoad = useMay('load');
  const found = outcome.issues;
  const release = useRelease({ edits, allowed: !readOnly, found, clock });
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);
  return (
    <Panes
      problem={clock.problem}
      title="Settings"
      lead="What holds for the whole site."
      actions={release.buttons}
      settings={
        <div className="flex flex-col gap-3">
          <OnBench lines={detail.onBench} />
          <DesignTense clock={clock} changed={changed} />
          <PatternWorldProvider type={null} inFrame specimen={null} clock={clock}>
            <SiteForm
              spec={spec}
              detail={detail}
              issues={outcome.issues}
              clock={clock}
              readOnly={readOnly}
              onChange={edits.change}
            />
          </PatternWorldProvider>
          <SaveSite />
          {mayLoad && (
            <Line
              label="From files"
              help="A folder or a .zip as it is saved above, or written by hand. You are told what it would do before anything is done."
            >
              <LoadFolder replaces={spec.name} />
            </Line>
          )}
        </div>
      }
      foot={
        <DesignFoot
          clock={clock}
          release={release}
          mend={elsewhere(outcome.issues)}
          reach={reachOf(clock, edits.steps, outcome.issues)}
        >
          <Shifted {...outcome.shifted} was={detail.spec.zone} zone={spec.zone} now={clock.now} />
        </DesignFoot>
      }
      outcome={
        <PreviewFrame
          html={outcome.html}
          title="Page at /"
          first={problem ?? `Page at “/” · ${when}${changed ? ' · with unsaved settings' : ''}`}
          at={clock.at}
        />
      }
    />
  );
}

/** Issues that no line of the form shows. */
function elsewhere(issues: Issue[]): Issue[] {
  return issues.filter(({ path = '' }) => !path.startsWith('site/'));
}
