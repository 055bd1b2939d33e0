import type { PinSpec } from '@/core/design/listing-spec.ts';
import type { Issue } from '@/core/issue.ts';
import type { ListingDetail } from '@/server/queries/listing.ts';
import { Moves } from '@/ui/primitives/moves.tsx';
import { EntryPicker } from '../entry-picker.tsx';
import { entryHref } from '../format.ts';
import { ClockLink } from '../shell/clock-link.tsx';

type Spec = ListingDetail['spec'];

interface Props {
  spec: Spec;
  detail: ListingDetail;
  /** Names of entries that were pinned here, by id. */
  names: Readonly<Record<string, string>>;
  issues: readonly Issue[];
  readOnly: boolean;
  onChange: (spec: Spec) => void;
  onName: (id: string, name: string) => void;
}

/** The entries that stand first in a listing, each from when and until when. */
export function PinLines({ spec, detail, names, issues, readOnly, onChange, onName }: Props) {
  const pins: PinSpec[] = spec.pins ?? [];
  const put = (next: PinSpec[]): void => {
    const { pins: _, ...rest } = spec;
    onChange((next.length === 0 ? rest : { ...rest, pins: next }) as Spec);
  };
  return (
    <section aria-label="Stand first">
      <h2>Stand first</h2>
      <ol>
        {pins.map((pin, i) => (
          <PinLine
            key={i}
            {...{ pin, readOnly }}
            name={names[pin.entry] ?? pin.entry}
            issues={issues.filter(({ path = '' }) => path.includes(`/pins/${i + 1}/`))}
            isFirst={i === 0}
            isLast={i === pins.length - 1}
            onChange={(next) => put(pins.with(i, next))}
            onMove={(by) => put(pins.with(i, pins[i + by]!).with(i + by, pin))}
            onUnpin={() => put(pins.toSpliced(i, 1))}
          />
        ))}
      </ol>
      {pins.length === 0 && (
        <p className="text-muted">
          Nobody: all stand in their order. Who stands first does so while the conditions let it in.
        </p>
      )}
      {!readOnly && (
        <EntryPicker
          id="pin"
          label="Pin an entry …"
          types={[spec.type]}
          at={detail.at}
          hidden={pins.map(({ entry }) => entry)}
          onPick={({ id, name }) => {
            onName(id, name);
            put([...pins, { entry: id }]);
          }}
        />
      )}
    </section>
  );
}

/** An entry that stands first: from when, until when, and where among the others. */
function PinLine({
  pin,
  name,
  issues,
  readOnly,
  isFirst,
  isLast,
  onChange,
  onMove,
  onUnpin,
}: {
  pin: PinSpec;
  name: string;
  issues: readonly Issue[];
  readOnly: boolean;
  isFirst: boolean;
  isLast: boolean;
  onChange: (pin: PinSpec) => void;
  onMove: (by: -1 | 1) => void;
  onUnpin: () => void;
}) {
  const time = { pin, readOnly, onChange };
  return (
    <li className="border-t border-rule py-1">
      <div className="flex flex-wrap items-center gap-2">
        <ClockLink
          href={entryHref(pin.entry)}
          className="min-w-0 flex-1 truncate font-[550] text-ink hover:underline"
        >
          {name}
        </ClockLink>
        <PinTime {...time} name="from" label={`${name}: from`} />
        <PinTime {...time} name="to" label={`${name}: until`} />
        {!readOnly && (
          <>
            <Moves of={name} {...{ isFirst, isLast, onMove }} />
            <button
              type="button"
              className="button-quiet"
              aria-label={`Unpin ${name}`}
              onClick={onUnpin}
            >
              Unpin
            </button>
          </>
        )}
      </div>
      {issues.map(({ message, fix }, n) => (
        <p key={n} className="mt-1 text-alarm">
          {message} <span className="text-muted">{fix}</span>
        </p>
      ))}
    </li>
  );
}

/** An end of a pin's stretch; none where it is left out. */
function PinTime({
  pin,
  name,
  label,
  readOnly,
  onChange,
}: {
  pin: PinSpec;
  name: 'from' | 'to';
  label: string;
  readOnly: boolean;
  onChange: (pin: PinSpec) => void;
}) {
  return (
    <input
      className="control !w-36 font-mono !text-note"
      aria-label={label}
      placeholder={name === 'from' ? 'from always' : 'without end'}
      title="An instant, such as 2026-12-24T08:00"
      maxLength={40}
      readOnly={readOnly}
      value={pin[name] ?? ''}
      onChange={(e) => {
        const { [name]: _, ...rest } = pin;
        onChange((e.target.value === '' ? rest : { ...rest, [name]: e.target.value }) as PinSpec);
      }}
    />
  );
}
