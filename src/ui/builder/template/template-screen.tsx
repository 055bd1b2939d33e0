'use client';

import { type ReactNode, useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';
import type { TemplateOutcome } from '@/server/queries/template-outcome.ts';
import { escapePattern } from '@/core/template/automatic.ts';
import type { OutlineLine } from '@/core/template/block-tree.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { Tabs } from '@/ui/primitives/tabs.tsx';
import { DesignFoot } from '../design-foot.tsx';
import { instantWords } from '../format.ts';
import { lookingOf } from '../looking.ts';
import { OnBench } from '../on-bench.tsx';
import { Panes } from '../panes.tsx';
import { PatternWorldProvider } from '../pattern-world.tsx';

import type { WrittenBlock } from '../page-frame.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { reachOf } from '../reach/reach-of.ts';
import { useDesignReadOnly } from '../rights.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { SpecimenChoice } from '../specimen-choice.tsx';
import { useEdits } from '../use-edits.ts';
import { useOutcome } from '../use-outcome.ts';
import { DesignTense, useRelease } from '../use-release.tsx';
import { itemsAround, repeatedAround } from './around.ts';
import { BlockPanel } from './block-panel.tsx';
import { BesideAnother } from './beside-another.tsx';
import { OutlineActions } from './outline-actions.tsx';
import { OutlineList } from './outline-list.tsx';
import { SourceView } from './source-view.tsx';
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
          <Line label="Name" htmlFor="template-label">
            <input
              id="template-label"
              className="control max-w-[320px]"
              maxLength={200}
              readOnly={readOnly}
              value={spec.label}
              onChange={(e) => edits.change({ ...spec, label: e.target.value })}
            />
          </Line>
        </Blocks>
      }
      foot={
        <DesignFoot
          {...{ release, clock }}
          mend={without(outcome.issues, ownIssues)}
          reach={reachOf(clock, steps, outcome.issues)}
        >
          <Stumbles lines={outcome.stumbles} />
        </DesignFoot>
      }
      outcome={
        <>
          {detail.type && (
            <SpecimenChoice specimens={detail.specimens} chosen={specimen} onChoose={setSpecimen} />
          )}
          <Shown
            {...{ outcome, clock, changed, problem }}
            beside={
              detail.specimens.length < 2 ? null : (
                <BesideAnother {...{ outcome, detail, specimen, steps, clock }} />
              )
            }
            marked={hovered ?? chosen?.block?.id ?? null}
            onOver={setHovered}
            onPress={outline.choose}
            fixedWords={(id) => (readOnly ? null : fixedWords(outline.lines, id))}
            onWrite={({ id, value }) => {
              const block = outline.lines.find((line) => line.block?.id === id)?.block;
              if (block) outline.change(id, { ...block, text: escapePattern(value) });
            }}
          />
        </>
      }
    />
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
          inFrame={detail.spec.kind === 'frame' || detail.spec.kind === 'menu'}
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

/** The page or the card, with the block that is at hand marked in it. */
function Shown({
  outcome: { html, placed, none, shownFor },
  clock,
  changed,
  problem,
  marked,
  beside,
  onOver,
  onPress,
  fixedWords,
  onWrite,
}: {
  /** The words of a block that are written on it, and not made of fields; null where they are. */
  fixedWords: (id: string) => string | null;
  onWrite: (written: WrittenBlock) => void;
  /** The same for another entry; null where there is none. */
  beside: ReactNode;
  outcome: TemplateOutcome;
  clock: Clock;
  changed: boolean;
  problem: string | null;
  marked: string | null;
  onOver: (id: string | null) => void;
  onPress: (id: string) => void;
}) {
  const when = clock.tense === 'now' ? 'now' : instantWords(clock.at, clock.zone, clock.now);
  const [writeBlock, setWriteBlock] = useState<WrittenBlock | null>(null);
  const onOpen = (id: string): void => {
    const value = fixedWords(id);
    if (value === null) writeInPanel();
    else setWriteBlock({ id, value });
  };
  if (html === null) return <p className="p-6 text-muted">{none}</p>;
  const first = problem ?? `${shownFor} · ${when}${changed ? ' · with unsaved blocks' : ''}`;
  const page = (shown: string, title: string) => (
    <PreviewFrame
      {...{ first, title, marked, writeBlock }}
      html={shown}
      at={clock.at}
      onBlock={(told) => {
        if ('over' in told) onOver(told.over);
        else if ('pressed' in told) onPress(told.pressed);
        else if ('opened' in told) onOpen(told.opened);
        else {
          setWriteBlock(null);
          onWrite(told.wroteBlock);
        }
      }}
    />
  );
  const tabs = [
    { key: 'page', label: placed === null ? 'Page' : 'Card', content: page(html, 'Page') },
    ...(placed === null
      ? []
      : [{ key: 'placed', label: 'In its list', content: page(placed, 'List') }]),
    ...(beside === null ? [] : [{ key: 'beside', label: 'Beside another', content: beside }]),
    { key: 'markup', label: 'Markup', content: <SourceView html={html} part="body" /> },
    ...(placed === null
      ? [{ key: 'head', label: 'Head', content: <SourceView html={html} part="head" /> }]
      : []),
  ];
  return <Tabs label="Outcome" tabs={tabs} />;
}

/** The words of a block that reads no fields; null of others. */
function fixedWords(lines: readonly OutlineLine[], id: string): string | null {
  const text = lines.find(({ block }) => block?.id === id)?.block?.['text'];
  return typeof text === 'string' && !/[{}[\]]/.test(text) ? text : null;
}

/** Puts the keyboard into the words of the block that was chosen, at their end. */
function writeInPanel(): void {
  const words = document.querySelector<HTMLInputElement>('#block-text, #block-html');
  words?.focus();
  words?.setSelectionRange?.(words.value.length, words.value.length);
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
