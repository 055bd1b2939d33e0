import { SHOWN_DATES } from '@/core/design/presets.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { ClockLink } from '../shell/clock-link.tsx';
import { Line } from '@/ui/primitives/line.tsx';

type Spec = TypeDetail['spec'];
type ShownDate = (typeof SHOWN_DATES)[number];

/** Which date a byline shows, within a sentence. */
export const DATE_WORDS: Record<ShownDate, string> = {
  none: '',
  published: 'the date of the first publication',
  updated: 'the date of the last change',
};

const SWITCHES = [
  ['index', 'Search engines', 'may list the pages'],
  ['follow', 'Their links', 'may be followed'],
  ['sitemap', 'Site map', 'has the pages'],
] as const;

/** The picks that new entries join. */
function PicksJoined({
  spec,
  detail: { picks },
  readOnly,
  onChange,
}: {
  spec: Spec;
  detail: TypeDetail;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}) {
  const { picks: joined = [], ...rest } = spec.presets;
  const put = (key: string, joins: boolean): void => {
    const next = picks.map((p) => p.key).filter((k) => (k === key ? joins : joined.includes(k)));
    onChange({ ...spec, presets: next.length === 0 ? rest : { ...rest, picks: next } });
  };
  return (
    <Line
      label="Picks joined"
      help="By new entries, last; those that are there stay where they are."
    >
      {picks.map(({ key, label }) => (
        <label key={key} className="flex items-center gap-2 py-1">
          <input
            type="checkbox"
            className="h-4 w-4 accent-spruce"
            checked={joined.includes(key)}
            disabled={readOnly}
            onChange={(e) => put(key, e.target.checked)}
          />
          {label}
        </label>
      ))}
      {picks.length === 0 && (
        <p className="pt-1.5 text-muted">
          {'None: there are no picks. '}
          <ClockLink className="link underline" href="/build/listings">
            Make some with the listings
          </ClockLink>
        </p>
      )}
    </Line>
  );
}

/** Whether listings show the entries, and each can have it otherwise. */
function Listed({
  spec: { presets, ...spec },
  readOnly,
  onChange,
}: {
  spec: Spec;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}) {
  const { listed, ...rest } = presets;
  const put = (value: string): void =>
    onChange({ ...spec, presets: value === '' ? rest : { ...rest, listed: value === 'yes' } });
  return (
    <Line
      label="Seen in lists"
      htmlFor="preset-listed"
      help="In listings, wherever they stand. Pages stay where they are, and picks show what they were given."
    >
      <select
        id="preset-listed"
        className="control"
        value={listed === undefined ? '' : listed ? 'yes' : 'no'}
        disabled={readOnly}
        onChange={(e) => put(e.target.value)}
      >
        <option value="">Every entry</option>
        <option value="yes">Every entry that is not kept out</option>
        <option value="no">Only entries that are let in</option>
      </select>
    </Line>
  );
}

/** For how many days versions are kept that were never public, where it is otherwise than the site. */
function VersionsKept({
  spec,
  readOnly,
  onChange,
}: {
  spec: Spec;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}) {
  const { retention, ...rest } = spec;
  const put = (value: Spec['retention']): void =>
    onChange((value === undefined ? rest : { ...rest, retention: value }) as Spec);
  return (
    <Line
      label="Versions kept"
      htmlFor="preset-retention"
      help="Of versions that were never public; the newest ten stay."
    >
      <span className="flex items-center gap-2">
        <select
          id="preset-retention"
          className="control"
          value={typeof retention === 'number' ? 'days' : (retention ?? '')}
          disabled={readOnly}
          onChange={({ target: { value } }) =>
            put(value === 'days' ? 90 : value === 'ever' ? value : undefined)
          }
        >
          <option value="">As the site has it</option>
          <option value="ever">For ever</option>
          <option value="days">For so many days</option>
        </select>
        {typeof retention === 'number' && (
          <input
            aria-label="Days for which versions are kept"
            className="control !w-24"
            type="number"
            min={1}
            max={36500}
            value={retention}
            readOnly={readOnly}
            onChange={(e) => put(Number(e.target.value))}
          />
        )}
      </span>
    </Line>
  );
}

/** What entries of a type begin with, each until it has it otherwise. */
export function PresetSettings({
  spec,
  detail,
  readOnly,
  onChange,
}: {
  spec: Spec;
  detail: TypeDetail;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}) {
  const { presets, seo } = spec;
  const choose = (key: (typeof SWITCHES)[number][0], value: string): void => {
    const { [key]: _, ...rest } = seo;
    onChange({ ...spec, seo: value === '' ? rest : { ...rest, [key]: value === 'yes' } });
  };
  return (
    <>
      <p className="py-1.5 text-muted">
        Every entry begins with these, and can have each of them otherwise. Pages show who wrote
        them, and the date, where their template has a byline; the automatic page has one.
      </p>
      <label className="flex items-center gap-2 py-1">
        <input
          type="checkbox"
          className="h-4 w-4 accent-spruce"
          checked={presets.author}
          disabled={readOnly}
          onChange={(e) => onChange({ ...spec, presets: { ...presets, author: e.target.checked } })}
        />
        Bylines show who wrote it
      </label>
      <Line label="Date shown" htmlFor="preset-date">
        <select
          id="preset-date"
          className="control"
          value={presets.date}
          disabled={readOnly}
          onChange={(e) =>
            onChange({ ...spec, presets: { ...presets, date: e.target.value as ShownDate } })
          }
        >
          {SHOWN_DATES.map((date) => (
            <option key={date} value={date}>
              {date === 'none' ? 'None' : DATE_WORDS[date].replace('the date', 'Date')}
            </option>
          ))}
        </select>
      </Line>
      <Listed {...{ spec, readOnly, onChange }} />
      <PicksJoined {...{ spec, detail, readOnly, onChange }} />
      <VersionsKept {...{ spec, readOnly, onChange }} />
      {SWITCHES.map(([key, label, words]) => (
        <Line key={key} label={label} htmlFor={`preset-${key}`}>
          <select
            id={`preset-${key}`}
            className="control"
            value={seo[key] === undefined ? '' : seo[key] ? 'yes' : 'no'}
            disabled={readOnly}
            onChange={(e) => choose(key, e.target.value)}
          >
            <option value="">As the site has it</option>
            <option value="yes">{`Yes: ${words}`}</option>
            <option value="no">No</option>
          </select>
        </Line>
      ))}
    </>
  );
}
