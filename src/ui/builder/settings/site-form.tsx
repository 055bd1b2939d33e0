import { type ReactNode, useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { SettingsDetail } from '@/server/queries/settings.ts';
import { MediaPicker } from '../media/media-picker.tsx';
import { Line } from '@/ui/primitives/line.tsx';
import { EntryPicker } from '../entry-picker.tsx';
import { entryHref } from '../format.ts';
import { useMay } from '../rights.tsx';
import { ClockLink } from '../shell/clock-link.tsx';
import { PatternInput } from '../pattern-input.tsx';

type Spec = SettingsDetail['spec'];

interface Props {
  spec: Spec;
  detail: SettingsDetail;
  issues: Issue[];
  clock: Clock;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}

/** The site's settings, a line each. */
export function SiteForm(props: Props) {
  return (
    <div>
      <Names {...props} />
      <Front {...props} />
      <Frame {...props} />
      <SharePicture {...props} />
      <Freshness {...props} />
      <Retention {...props} />
      <Rules {...props} />
      <h2 className="mt-3">The site’s own words</h2>
      <Own {...props.detail} />
      <Sets {...props.detail} />
      <Languages />
      <Style />
      <Texts />
      <People />
    </div>
  );
}

/** Settings of the site's own stand in entries, written as any other. */
function Own({ own }: SettingsDetail) {
  if (own.length === 0)
    return (
      <Line label="Own settings">
        <p className="pt-1.5 text-muted">
          A type with exactly one entry holds settings of your own, such as a telephone number.
        </p>
      </Line>
    );
  return (
    <>
      {own.map(({ key, label, entry }) => (
        <Line key={key} label={label}>
          <p className="pt-1.5">
            <ClockLink
              className="link"
              href={entry ? entryHref(entry.id) : `/build/content/new/${key}`}
            >
              {entry ? entry.name : 'Not written yet: write it'}
            </ClockLink>
          </p>
        </Line>
      ))}
    </>
  );
}

/** The subject sets, each with a screen of its own. */
function Sets({ sets }: SettingsDetail) {
  return (
    <Line label="Subject sets">
      <ul className="flex flex-wrap gap-x-4 pt-1.5">
        {sets.map(({ key, label, kind }) => (
          <li key={key}>
            <ClockLink className="link" href={`/build/settings/subjects/${key}`}>
              {label}
            </ClockLink>
            <span className="text-muted">{kind === 'tree' ? ' (categories)' : ' (tags)'}</span>
          </li>
        ))}
        {sets.length === 0 && (
          <li className="text-muted">None yet: a field of tags or a category makes one.</li>
        )}
      </ul>
    </Line>
  );
}

/** What pages look like has a screen of its own. */
function Style() {
  return (
    <Line label="Style">
      <p className="pt-1.5">
        <ClockLink className="link" href="/build/settings/style">
          Colours, type and rules of every page
        </ClockLink>
      </p>
    </Line>
  );
}

/** The languages of the site have a screen of their own. */
function Languages() {
  return (
    <Line label="Languages">
      <p className="pt-1.5">
        <ClockLink className="link" href="/build/settings/languages">
          Further languages, and what the design says in them
        </ClockLink>
      </p>
    </Line>
  );
}

/** What rich texts may hold has a screen of its own. */
function Texts() {
  return (
    <Line label="Texts">
      <p className="pt-1.5">
        <ClockLink className="link" href="/build/settings/texts">
          What rich texts may hold, and styles
        </ClockLink>
      </p>
    </Line>
  );
}

/** Who works on the site has a screen of its own, for those who say who does. */
function People() {
  if (!useMay('change-people')) return null;
  return (
    <Line label="People">
      <p className="pt-1.5">
        <ClockLink className="link" href="/build/settings/people">
          Who works on the site, and what each may do
        </ClockLink>
      </p>
    </Line>
  );
}

const WORDS = [
  ['name', 'Name', 'Stands in the frame and in titles: {site.name}.'],
  ['strapline', 'Strapline', null],
  ['url', 'Address', 'Scheme and host under which visitors find the site.'],
  ['zone', 'Time zone', 'Such as Europe/Dublin: what “today” is, and every time shown.'],
  ['language', 'Language', 'A language tag, such as en or de.'],
] as const;

function Names({ spec, issues, readOnly, onChange }: Props) {
  return (
    <>
      {WORDS.map(([key, label, help]) => (
        <Line key={key} label={label} htmlFor={`site-${key}`} help={help}>
          <input
            id={`site-${key}`}
            className="control"
            value={spec[key]}
            readOnly={readOnly}
            aria-invalid={issuesAt(issues, key).length > 0}
            onChange={(e) => onChange({ ...spec, [key]: e.target.value })}
          />
          <Wrong issues={issuesAt(issues, key)} />
        </Line>
      ))}
    </>
  );
}

/** The picture of share cards that have none of their own. */
function SharePicture({ spec, readOnly, onChange }: Props) {
  const [picking, setPicking] = useState(false);
  const { sharePicture, ...rest } = spec;
  return (
    <Line
      label="Share picture"
      htmlFor="site-picture"
      help="On share cards of pages that have no picture of their own."
      result={sharePicture}
    >
      <div className="flex items-center gap-3">
        <button
          id="site-picture"
          type="button"
          className="button"
          aria-expanded={picking}
          disabled={readOnly}
          onClick={() => setPicking(!picking)}
        >
          {sharePicture === undefined ? 'Choose a picture' : 'Choose another'}
        </button>
        {sharePicture !== undefined && !readOnly && (
          <button type="button" className="button-quiet" onClick={() => onChange(rest)}>
            Leave it out
          </button>
        )}
      </div>
      {picking && (
        <MediaPicker
          takes={{}}
          onPick={(picture) => {
            onChange({ ...spec, sharePicture: picture });
            setPicking(false);
          }}
        />
      )}
    </Line>
  );
}

function Front({ spec, detail, clock, readOnly, onChange }: Props) {
  const { front } = spec;
  const value = front && 'listing' in front ? front.listing : front ? ENTRY : '';
  const choose = (next: string): void => {
    const { front: _, ...rest } = spec;
    onChange(next === '' ? (rest as Spec) : { ...spec, front: { listing: next } });
  };
  return (
    <Line
      label="Page at “/”"
      htmlFor="site-front"
      result={front && 'entry' in front ? `Entry: ${detail.frontName ?? front.entry}` : undefined}
    >
      <select
        id="site-front"
        className="control"
        disabled={readOnly}
        value={value}
        onChange={(e) => choose(e.target.value)}
      >
        <option value="">The newest pages, by itself</option>
        {value === ENTRY && <option value={ENTRY}>An entry</option>}
        {detail.listings.map(({ key, label }) => (
          <option key={key} value={key}>{`Listing: ${label}`}</option>
        ))}
      </select>
      {!readOnly && (
        <div className="mt-1">
          <EntryPicker
            id="site-front-entry"
            label="or find an entry …"
            types={null}
            at={clock.at}
            onPick={({ id }) => onChange({ ...spec, front: { entry: id } })}
          />
        </div>
      )}
    </Line>
  );
}

/** Stands for the entry chosen: no listing has a key like it. */
const ENTRY = ' entry';

function Frame({ spec, detail, readOnly, onChange }: Props) {
  const choose = (next: string): void => {
    const { frame: _, ...rest } = spec;
    onChange(next === '' ? (rest as Spec) : { ...spec, frame: next });
  };
  return (
    <Line label="Frame" htmlFor="site-frame" help="What surrounds every page.">
      <select
        id="site-frame"
        className="control"
        disabled={readOnly}
        value={spec.frame ?? ''}
        onChange={(e) => choose(e.target.value)}
      >
        <option value="">Automatic: name above, strapline below</option>
        {detail.frames.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
    </Line>
  );
}

function Freshness({ spec, issues, readOnly, onChange }: Props) {
  return (
    <Line
      label="Freshness"
      htmlFor="site-freshness"
      help="Seconds for which browsers may show a page again without asking, 0 to 60."
    >
      <input
        id="site-freshness"
        className="control !w-24"
        inputMode="numeric"
        value={String(spec.freshness)}
        readOnly={readOnly}
        aria-invalid={issuesAt(issues, 'freshness').length > 0}
        onChange={(e) => onChange({ ...spec, freshness: numberOr(e.target.value) as number })}
      />
      <Wrong issues={issuesAt(issues, 'freshness')} />
    </Line>
  );
}

function Retention({ spec, issues, readOnly, onChange }: Props) {
  const put = (text: string): void => {
    const { retention: _, ...rest } = spec;
    onChange(text === '' ? rest : { ...rest, retention: numberOr(text) as number });
  };
  return (
    <Line
      label="Versions kept"
      htmlFor="site-retention"
      help="Days for which versions of entries are kept that were never public; blank for ever. The newest ten stay, and whatever was ever public. It takes hold when an entry is saved next; a type can have it otherwise."
    >
      <input
        id="site-retention"
        className="control !w-24"
        inputMode="numeric"
        placeholder="for ever"
        value={spec.retention ?? ''}
        readOnly={readOnly}
        aria-invalid={issuesAt(issues, 'retention').length > 0}
        onChange={(e) => put(e.target.value)}
      />
      <Wrong issues={issuesAt(issues, 'retention')} />
    </Line>
  );
}

function numberOr(text: string): number | string {
  return /^\d+$/.test(text) ? Number(text) : text;
}

function Rules({ spec, issues, readOnly, onChange }: Props) {
  const set = (key: 'title' | 'description', value: string): void => {
    const { [key]: _, ...rest } = spec.seo;
    onChange({ ...spec, seo: value === '' ? rest : { ...rest, [key]: value } });
  };
  const rules = [
    ['title', 'Title rule', 'The naming field'],
    ['description', 'Description', 'The summary, or the first paragraph'],
  ] as const;
  return (
    <>
      <h2 className="mt-3">Where a type says nothing else</h2>
      {rules.map(([key, label, otherwise]) => (
        <Line key={key} label={label} htmlFor={`site-seo-${key}`}>
          <PatternInput
            id={`site-seo-${key}`}
            value={spec.seo[key] ?? ''}
            placeholder={otherwise}
            readOnly={readOnly}
            issues={issuesAt(issues, `seo/${key}`)}
            onChange={(value) => set(key, value)}
          />
        </Line>
      ))}
    </>
  );
}

function issuesAt(issues: Issue[], place: string): Issue[] {
  return issues.filter(({ path = '' }) => `${path}/`.startsWith(`site/${place}/`));
}

function Wrong({ issues }: { issues: Issue[] }): ReactNode {
  return issues.map(({ message }) => (
    <p key={message} className="mt-1 text-note text-alarm">
      {message}
    </p>
  ));
}
