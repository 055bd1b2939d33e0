'use client';

import { type ReactNode, useState } from 'react';
import { isAroundPages } from '@/core/design/template-kind.ts';
import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';
import type { TemplateOutcome } from '@/server/queries/template-outcome.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { DesignFoot } from '../design-foot.tsx';
import { lookingOf } from '../looking.ts';
import { OnBench } from '../on-bench.tsx';
import { Panes } from '../panes.tsx';
import { PatternWorldProvider } from '../pattern-world.tsx';

import { reachOf } from '../reach/reach-of.ts';
import { useDesignReadOnly } from '../rights.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { SpecimenChoice } from '../specimen-choice.tsx';
import { useEdits } from '../use-edits.ts';
import { useOutcome } from '../use-outcome.ts';
import { DesignTense, useRelease } from '../use-release.tsx';
import { itemsAround, repeatedAround } from './around.ts';
import { BlockPanel } from './block-panel.tsx';
import { OutlineActions } from './outline-actions.tsx';
import { OutlineList } from './outline-list.tsx';
import { ShownPage } from './shown-page.tsx';
import { type Outline, useOutline } from './use-outline.ts';
import { WholeTemplate } from './whole-template.tsx';

interface Props {
  detail: TemplateDetail;
  outcome: TemplateOutcome;
  specimen: string | null;
  clock: Clock;
}

/** A template: its blocks as an outline, and the real page of an entry beside them. */
export function TemplateScreen({ detail, outcome: first, specimen: given, clock }: Props) {
  const { id } = detail.spec;
  const edits = useEdits(`templates/${id}`, detail.spec);
  const { spec, changed, steps } = edits;
  const [specimen, setSpecimen] = useState(given);
  const [hovered, setHovered] = useState<string | null>(null);
  const [measured, setMeasured] = useState<string[]>([]);
  const { outcome, problem } = useOutcome<TemplateOutcome>(
    'template',
    { ...lookingOf(clock), id, steps, specimen },
    first,
    changed || specimen !== given,
  );
  const outline = useOutline(edits, detail);
  const readOnly = useDesignReadOnly(clock);
  const release = useRelease({
    edits,
    allowed: !readOnly && spec.label !== '',
    found: outcome.issues,
    clock,
  });
  const { chosen } = outline;
  const issues = issuesOf(outcome.issues, spec.key);
  const ownIssues = chosen ? within(issues, chosen.place) : [];
  return (
    <Panes
      problem={clock.problem}
      title={spec.label}
      lead={
        <>
          <Lead detail={detail} />
          {!readOnly && !changed && <WholeTemplate detail={detail} attempt={release.attempt} />}
        </>
      }
      actions={release.buttons}
      settings={
        <Blocks
          {...{ detail, outline, outcome, issues, ownIssues, readOnly, specimen, clock }}
          onHover={setHovered}
        >
          <OnBench lines={detail.onBench} />
          <DesignTense clock={clock} changed={changed} />
          <NameLine
            {...{ readOnly }}
            name={spec.label}
            onChange={(label) => edits.change({ ...spec, label })}
          />
        </Blocks>
      }
      foot={
        <DesignFoot
          {...{ release, clock }}
          mend={without(outcome.issues, ownIssues)}
          reach={reachOf(clock, steps, outcome.issues)}
        >
          <Stumbles lines={[...outcome.stumbles, ...measured]} />
        </DesignFoot>
      }
      outcome={
        <>
          {detail.type && (
            <SpecimenChoice specimens={detail.specimens} chosen={specimen} onChoose={setSpecimen} />
          )}
          <ShownPage
            {...{ outcome, detail, outline, specimen, steps, clock, changed, problem, readOnly }}
            marked={hovered ?? chosen?.block?.id ?? null}
            onOver={setHovered}
            onMeasured={setMeasured}
          />
        </>
      }
    />
  );
}

/** What the template is called. */
function NameLine({
  name,
  readOnly,
  onChange,
}: {
  name: string;
  readOnly: boolean;
  onChange: (name: string) => void;
}) {
  return (
    <Line label="Name" htmlFor="template-label">
      <input
        id="template-label"
        className="control max-w-[320px]"
        maxLength={200}
        readOnly={readOnly}
        value={name}
        onChange={(e) => onChange(e.target.value)}
      />
    </Line>
  );
}

/** What readers of the page that is shown would stumble over. */
function Stumbles({ lines }: { lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <section aria-label="On this page">
      <h2>On this page</h2>
      <ul>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}

/** The outline, and below it the settings of the block that is chosen. */
function Blocks({
  detail,
  outline,
  outcome,
  issues,
  ownIssues,
  readOnly,
  onHover,
  specimen,
  clock,
  children,
}: {
  specimen: string | null;
  clock: Clock;
  detail: TemplateDetail;
  outline: Outline;
  outcome: TemplateOutcome;
  /** Of the template, by their places; and of the chosen block, by its properties. */
  issues: readonly Issue[];
  ownIssues: readonly Issue[];
  readOnly: boolean;
  onHover: (id: string | null) => void;
  children: ReactNode;
}) {
  const { chosen } = outline;
  return (
    <div className="flex flex-col gap-3">
      {children}
      {!readOnly && <OutlineActions {...{ outline, detail }} unused={outcome.unused} />}
      <OutlineList
        {...{ outline, detail, readOnly, onHover }}
        drawn={outcome.drawn}
        wrong={issues.map(({ path = '' }) => path)}
      />
      {chosen ? (
        <PatternWorldProvider
          {...{ specimen, clock }}
          type={detail.type?.key ?? null}
          inFrame={isAroundPages(detail.spec.kind)}
          over={repeatedAround(outline.lines, chosen)}
        >
          <BlockPanel
            key={chosen.block!.id}
            {...detail}
            {...{ readOnly }}
            line={chosen}
            given={outcome.drawn[chosen.block!.id!]}
            why={outcome.why[chosen.block!.id!]}
            items={itemsAround(outline.lines, chosen, outcome.items)}
            issues={ownIssues}
            onChange={(block) => outline.change(block.id!, block)}
          />
        </PatternWorldProvider>
      ) : (
        <p className="text-muted">
          Choose a block, here or on the page, to see what it is bound to.
        </p>
      )}
    </div>
  );
}

/** What the template reads, and where it is chosen. */
function Lead({ detail: { spec, type, uses } }: { detail: TemplateDetail }) {
  const kind = { page: 'Page', card: 'Card', frame: 'Frame', menu: 'Menu' }[spec.kind];
  return (
    <>
      {`${kind}${type ? ` of ${type.label}` : ''} · `}
      {uses.length === 0 ? 'chosen nowhere' : 'chosen for '}
      {uses.map(({ words, href }, i) => (
        <span key={href}>
          {i > 0 && ', '}
          <ClockLink className="underline" href={href}>
            {words}
          </ClockLink>
        </span>
      ))}
    </>
  );
}

/** Issues of the template itself, by their places within it. */
function issuesOf(issues: readonly Issue[], key: string): Issue[] {
  const start = `templates/${key}/`;
  return issues
    .filter(({ path = '' }) => path.startsWith(start))
    .map((issue) => ({ ...issue, path: issue.path!.slice(start.length) }));
}

/** Issues less those that are said elsewhere. */
function without(issues: readonly Issue[], said: readonly Issue[]): Issue[] {
  return issues.filter(({ message }) => !said.some((one) => one.message === message));
}

/** Issues of one block, by its properties; those of blocks within it are theirs. */
function within(issues: readonly Issue[], place: string): Issue[] {
  return issues.flatMap((issue) => {
    const { path = '' } = issue;
    if (!path.startsWith(`${place}/`)) return [];
    const rest = path.slice(place.length + 1);
    return /^(blocks|otherwise|columns\/\d+)\/\d+\//.test(rest) ? [] : [{ ...issue, path: rest }];
  });
}
