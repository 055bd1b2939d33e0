import { FIELD_KINDS } from '@/core/design/kinds/index.ts';
import {
  type Finding,
  type OutlineField,
  type OutlineType,
  type OutlineWorld,
  withKind,
} from '@/core/outline/read.ts';
import { fieldWords, typeSentence } from '@/core/outline/words.ts';
import { useMay } from '../rights.tsx';
import type { Outline } from './use-outline.ts';

/** What each line of an outline was understood as, with what mends it in one press. */
export function OutlineReadings({
  outline,
  world,
  readOnly,
}: {
  outline: Outline;
  world: OutlineWorld;
  readOnly: boolean;
}) {
  const { types } = outline;
  const mayDesign = useMay('change-design');
  if (readOnly)
    return (
      <p className="px-6 py-4 text-muted">
        {mayDesign
          ? 'New types are written while the clock is at now.'
          : 'New types are written by builders of the site.'}
      </p>
    );
  if (types.length === 0) return <HowToWrite />;
  return (
    <ol className="px-6 py-2">
      {types.map((type) => (
        <li key={`${type.line.start}`} className="border-b border-rule py-3">
          <p>{typeSentence(type, world)}</p>
          <Findings findings={type.findings} outline={outline} />
          <ul className="mt-1">
            {type.fields.map((field) => (
              <Field
                key={field.key}
                field={field}
                words={fieldWords(field, types, world)}
                outline={outline}
                isAdded={isAdded(type, field)}
              />
            ))}
          </ul>
        </li>
      ))}
    </ol>
  );
}

/** Whether a field stands in no line, and is made because something has to name the entries. */
function isAdded({ line }: OutlineType, { range }: OutlineField): boolean {
  return range.start === line.start && range.end === line.end;
}

function Field({
  field,
  words,
  outline,
  isAdded,
}: {
  field: OutlineField;
  words: string;
  outline: Outline;
  isAdded: boolean;
}) {
  const { label, kind, findings } = field;
  return (
    <li className="py-0.5">
      <div className="grid grid-cols-[minmax(0,160px)_minmax(0,1fr)_auto] items-center gap-x-3">
        <span className="truncate font-[550]" title={label}>
          {label}
        </span>
        <span className="min-w-0 break-words">{words}</span>
        {!isAdded && (
          <select
            className="control !h-7 !w-36"
            aria-label={`Kind of ${label}`}
            value={kind}
            onChange={({ target: { value } }) =>
              outline.write(withKind(outline.text, field.range, spokenAs(value)))
            }
          >
            {FIELD_KINDS.map((k) => (
              <option key={k.kind} value={k.kind}>
                {k.label}
              </option>
            ))}
          </select>
        )}
      </div>
      <Findings findings={findings} outline={outline} />
    </li>
  );
}

function spokenAs(kind: string): string {
  return FIELD_KINDS.find((k) => k.kind === kind)!.spoken[0]!;
}

function Findings({ findings, outline }: { findings: Finding[]; outline: Outline }) {
  return findings.map(({ message, isWrong, corrections }) => (
    <p key={message} className="flex flex-wrap items-baseline gap-x-2">
      <span className={isWrong ? 'text-alarm' : 'text-muted'}>{message}</span>
      {corrections.map(({ words, text }) => (
        <button
          key={words}
          type="button"
          className="button-quiet"
          onClick={() => outline.write(text)}
        >
          {words}
        </button>
      ))}
    </p>
  ));
}

const EXAMPLES = [
  ['Boat: name, built (number), photo', 'a type with three fields'],
  ['class (four / eight)', 'one of prepared options'],
  ['cox (→ Person)', 'leads to one entry of another type'],
  ['rowers (group: name, seat)', 'fields that belong together, once or several times'],
  ['crew (several → Person)', 'leads to several'],
  ['traits (tags)', 'tags of a set of their own'],
  ['inside (within)', 'the page that this one sits within'],
  ['title (required)', 'cannot be left blank'],
  ['Sponsor (no pages): name, logo', 'a type without pages of its own'],
  ['Settings (single): phone, address', 'a type with one entry, read everywhere'],
] as const;

function HowToWrite() {
  return (
    <div className="px-6 py-4">
      <p>
        Write a type a line, its fields after a colon, or below it with a dash each. What is
        understood stands here while you write; nothing is made before you say so.
      </p>
      <dl className="mt-3 grid grid-cols-[minmax(0,auto)_minmax(0,1fr)] items-baseline gap-x-6 gap-y-1">
        {EXAMPLES.map(([text, words]) => (
          <div key={text} className="contents">
            <dt className="font-mono text-note">{text}</dt>
            <dd className="text-muted">{words}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
