'use client';

import { useState } from 'react';
import type { OutlineLine } from '@/core/template/block-tree.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { escapePattern } from '@/core/template/automatic.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';
import type { TemplateOutcome } from '@/server/queries/template-outcome.ts';
import { Tabs } from '@/ui/primitives/tabs.tsx';
import { useWhen } from '../use-when.ts';
import type { BlockTold, WrittenBlock } from '../page-frame.tsx';
import { PreviewFrame } from '../preview-frame.tsx';
import { BesideAnother } from './beside-another.tsx';
import { SourceView } from './source-view.tsx';
import type { Outline } from './use-outline.ts';

interface Props {
  outcome: TemplateOutcome;
  detail: TemplateDetail;
  outline: Outline;
  specimen: string | null;
  steps: Step[];
  clock: Clock;
  changed: boolean;
  problem: string | null;
  readOnly: boolean;
  marked: string | null;
  onOver: (id: string | null) => void;
  /** Told what of the layout is hard to read or to press. */
  onMeasured: (stumbles: string[]) => void;
}

/** The page or the card, with the block that is at hand marked in it; fixed words are written there. */
export function ShownPage(props: Props) {
  const { outcome, detail, clock, changed, problem, marked } = props;
  const { html, placed, none, shownFor } = outcome;
  const { writeBlock, onBlock } = useWriting(props);
  const when = useWhen(clock);
  if (html === null) return <p className="p-6 text-muted">{none}</p>;
  const first = problem ?? `${shownFor} · ${when}${changed ? ' · with unsaved blocks' : ''}`;
  const page = (shown: string, title: string) => (
    <PreviewFrame
      {...{ first, title, marked, writeBlock, onBlock }}
      isMeasured
      html={shown}
      at={clock.at}
    />
  );
  const { specimen, steps } = props;
  const tabs = [
    { key: 'page', label: placed === null ? 'Page' : 'Card', content: page(html, 'Page') },
    ...(placed === null
      ? []
      : [{ key: 'placed', label: 'In its list', content: page(placed, 'List') }]),
    ...(detail.specimens.length < 2
      ? []
      : [
          {
            key: 'beside',
            label: 'Beside another',
            content: <BesideAnother {...{ outcome, detail, specimen, steps, clock }} />,
          },
        ]),
    { key: 'markup', label: 'Markup', content: <SourceView html={html} part="body" /> },
    ...(placed === null
      ? [{ key: 'head', label: 'Head', content: <SourceView html={html} part="head" /> }]
      : []),
  ];
  return <Tabs label="Outcome" tabs={tabs} />;
}

/** Hears what is done on the page; pressing fixed words twice lets them be written there. */
function useWriting({ outline, clock, readOnly, onOver, onMeasured }: Props) {
  const [writeBlock, setWriteBlock] = useState<WrittenBlock | null>(null);
  const onBlock = (told: BlockTold): void => {
    if ('over' in told) return onOver(told.over);
    if ('pressed' in told) return outline.choose(told.pressed);
    if ('stumbles' in told) return onMeasured(told.stumbles);
    if ('wroteBlock' in told) {
      const { id, value } = told.wroteBlock;
      const block = outline.lines.find((line) => line.block?.id === id)?.block;
      setWriteBlock(null);
      if (block) outline.change(id, { ...block, text: escapePattern(value) });
      return;
    }
    // What a further language says in its place stands among its texts.
    const isOwn = clock.language === null && !readOnly;
    const value = isOwn ? fixedWords(outline.lines, told.opened) : null;
    if (value === null) writeInPanel();
    else setWriteBlock({ id: told.opened, value });
  };
  return { writeBlock, onBlock };
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
