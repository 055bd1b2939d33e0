'use client';

import { useState } from 'react';
import { type Language, type Texts } from '@/core/design/language-spec.ts';
import { saidIn } from '@/core/design/texts.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { LanguageLine, LanguagesDetail, TextGroup } from '@/server/queries/languages.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { DesignFoot } from '../../design-foot.tsx';
import { OnBench } from '../../on-bench.tsx';
import { reachOf } from '../../reach/reach-of.ts';
import { useDesignReadOnly } from '../../rights.tsx';
import { useEdits } from '../../use-edits.ts';
import { useRelease } from '../../use-release.tsx';

interface Props {
  line: LanguageLine;
  detail: LanguagesDetail;
  clock: Clock;
}

/** Where a language stands, what it does without words, and what it says in place of each text. */
export function LanguageEditor({ line, detail, clock }: Props) {
  const edits = useEdits<Language>(`languages/${line.spec.id}`, line.spec);
  const { spec } = edits;
  const readOnly = useDesignReadOnly(clock);
  const release = useRelease({ edits, allowed: !readOnly && spec.label !== '', clock });
  const set = (more: Partial<Language>): void => edits.change({ ...spec, ...more });
  const id = `language-${spec.id}`;
  return (
    <div className="flex flex-col gap-1 border-l-2 border-rule pl-4">
      <OnBench lines={line.onBench} />
      <Line label="Name" htmlFor={`${id}-label`} help="As it is called in itself.">
        <input
          id={`${id}-label`}
          className="control max-w-[320px]"
          value={spec.label}
          readOnly={readOnly}
          onChange={(e) => set({ label: e.target.value })}
        />
      </Line>
      <Line label="Below" htmlFor={`${id}-path`} help="First part of all its addresses.">
        <div className="flex max-w-[320px] items-center gap-1">
          <span className="text-muted">/</span>
          <input
            id={`${id}-path`}
            className="control font-mono !text-table"
            value={spec.path}
            readOnly={readOnly}
            onChange={(e) => set({ path: e.target.value })}
          />
        </div>
      </Line>
      <Line label="Without words">
        <label className="flex items-center gap-2 pt-1.5">
          <input
            type="checkbox"
            checked={spec.fallback}
            disabled={readOnly}
            onChange={(e) => set({ fallback: e.target.checked })}
          />
          {`Entries that say nothing in it are shown in ${detail.own.label}`}
        </label>
      </Line>
      <div className="sticky top-0 z-10 mt-1 bg-paper py-1">
        <div className="flex max-w-[464px] justify-end">{release.buttons}</div>
      </div>
      <DesignFoot clock={clock} release={release} reach={reachOf(clock, edits.steps, [])} />
      <SaidTexts {...{ spec, detail, readOnly }} onChange={edits.change} />
    </div>
  );
}

type Said = TextGroup['texts'][number];

/** Every text of the design that readers meet, beside what the language says in its place. */
function SaidTexts({
  spec,
  detail,
  readOnly,
  onChange,
}: {
  spec: Language;
  detail: LanguagesDetail;
  readOnly: boolean;
  onChange: (spec: Language) => void;
}) {
  const [onlyMissing, setOnlyMissing] = useState(false);
  // Whoever writes what is missing goes on seeing it.
  const [begun] = useState(spec);
  const isShown = (text: Said): boolean => !onlyMissing || saidIn(begun, text) === null;
  const groups = detail.groups
    .map((group) => ({ ...group, texts: group.texts.filter(isShown) }))
    .filter(({ texts }) => texts.length > 0);
  return (
    <section aria-label="Texts of the design" className="mt-2">
      <div className="flex items-baseline gap-4">
        <h3 className="font-semibold">Texts of the design</h3>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={onlyMissing}
            onChange={(e) => setOnlyMissing(e.target.checked)}
          />
          Only what is not said
        </label>
      </div>
      {groups.length === 0 && <p className="py-2 text-muted">Everything is said.</p>}
      {groups.map(({ label, texts }) => (
        <table key={label} className="mt-2 w-full table-fixed text-left">
          <caption className="py-1 text-left font-[550]">{label}</caption>
          <tbody>
            {texts.map((text) => (
              <TextRow
                key={`${text.part} ${text.property}`}
                {...{ spec, text, readOnly }}
                onSay={(words) => onChange({ ...spec, texts: withSaid(spec.texts, text, words) })}
              />
            ))}
          </tbody>
        </table>
      ))}
    </section>
  );
}

function TextRow({
  spec,
  text,
  readOnly,
  onSay,
}: {
  spec: Language;
  text: Said;
  readOnly: boolean;
  onSay: (words: string) => void;
}) {
  const isCode = text.sort !== 'words';
  const said = saidIn(spec, text) ?? '';
  const look = `control ${isCode ? 'font-mono !text-table' : ''}`;
  const props = {
    'aria-label': `${text.label} in ${spec.label}`,
    value: said,
    readOnly,
    spellCheck: !isCode,
    lang: spec.language,
  };
  return (
    <tr className="border-t border-rule align-top">
      <th scope="row" className="w-1/4 py-1.5 pr-4 font-normal text-muted">
        {text.label}
      </th>
      <td className={`w-3/8 py-1.5 pr-4 break-words ${isCode ? 'font-mono text-table' : ''}`}>
        {text.text}
      </td>
      <td className="w-3/8 py-1">
        {text.text.length > 80 ? (
          <textarea {...props} rows={3} className={look} onChange={(e) => onSay(e.target.value)} />
        ) : (
          <input {...props} className={look} onChange={(e) => onSay(e.target.value)} />
        )}
      </td>
    </tr>
  );
}

/** Texts with one of them said otherwise; '' for not at all. */
function withSaid(
  texts: Language['texts'],
  { part, property }: Pick<Said, 'part' | 'property'>,
  words: string,
): Language['texts'] {
  const names = property.split('.');
  const put = (within: Texts, [name, ...rest]: string[]): Texts => {
    const { [name!]: before, ...others } = within;
    if (rest.length > 0)
      return { ...within, [name!]: put(typeof before === 'object' ? before : {}, rest) };
    return words === '' ? others : { ...within, [name!]: words };
  };
  return { ...texts, [part]: put(texts[part] ?? {}, names) };
}
