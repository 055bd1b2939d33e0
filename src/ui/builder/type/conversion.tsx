import type { Field } from '@/core/design/field.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ConversionOutcome } from '@/server/queries/conversion.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { freeKey, typeKeyOf } from '@/core/outline/names.ts';
import { counted, entryHref } from '../format.ts';
import { ReaderWords } from './reader-words.tsx';
import { newId } from '../design-steps.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { useAsked } from '../use-asked.ts';

const MOST_OPTIONS = 100;

/** What becomes of the values of a field that is to hold something else. */
export function Conversion({
  field,
  part,
  detail,
  clock,
  onChange,
}: {
  field: Field;
  /** The path of the field that it takes the place of. */
  part: string;
  detail: TypeDetail;
  clock: Clock;
  onChange: (field: Field) => void;
}) {
  const { answer, problem } = useAsked<ConversionOutcome>('conversion', {
    at: clock.at,
    part,
    to: asGiven(field),
  });
  if (!answer) return <p role="status">{problem ?? 'Looking through the entries …'}</p>;
  const { filled, losing, lost, values } = answer;
  const options = field.options ?? [];
  const missing = values
    .filter(({ value }) => !options.some((o) => o.label.toLowerCase() === value.toLowerCase()))
    .slice(0, MOST_OPTIONS - options.length);
  const addOptions = (): void => {
    const all = [...options];
    for (const { value } of missing) {
      const key = freeKey(typeKeyOf(value, detail.language), new Set(all.map((o) => o.key)));
      all.push({ id: newId(), key, label: value.slice(0, 200) });
    }
    onChange({ ...field, options: all });
  };
  return (
    <div className="my-1.5 border-l-2 border-spruce pl-3" role="status">
      <p>{problem ?? summary(filled, losing)}</p>
      {lost.length > 0 && <Lost {...answer} />}
      <ReaderWords readers={answer.readers} verb="Read elsewhere" />
      {field.kind === 'choice' && missing.length > 0 && (
        <button type="button" className="button mt-1.5" onClick={addOptions}>
          {`Make ${counted(missing.length, 'option')} of the values in use`}
        </button>
      )}
    </div>
  );
}

/** Only what conversion goes by: a new name asks nothing anew. */
function asGiven({ id, kind, many, options, set }: Field): object {
  return {
    id,
    key: 'converted',
    kind,
    many,
    ...(options ? { options } : {}),
    ...(set ? { set } : {}),
  };
}

function summary(filled: number, losing: number): string {
  if (filled === 0) return 'No entry holds a value in it.';
  const held = `${counted(filled, 'entry holds', 'entries hold')} a value in it`;
  if (losing === 0) return `${held}; all of them fit.`;
  const words =
    losing === filled ? 'none of them' : `${(filled - losing).toLocaleString('en')} of them`;
  return `${held}; ${words} ${filled - losing === 1 ? 'fits' : 'fit'} as a whole. What does not fit stays stored, and shows again if this is taken back:`;
}

function Lost({ lost, losing }: ConversionOutcome) {
  return (
    <ul className="mt-1 max-h-48 overflow-auto">
      {lost.map(({ id, name, value }) => (
        <li key={id} className="grid grid-cols-2 gap-3">
          <ClockLink className="link truncate" href={entryHref(id)}>
            {name}
          </ClockLink>
          <span className="truncate text-muted" title={value}>
            {value}
          </span>
        </li>
      ))}
      {losing > lost.length && (
        <li className="text-muted">{`and ${(losing - lost.length).toLocaleString('en')} more`}</li>
      )}
    </ul>
  );
}
