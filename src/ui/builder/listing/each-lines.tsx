import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ListingColumn } from '@/server/queries/listing-columns.ts';
import type { ListingDetail } from '@/server/queries/listing.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { PatternInput } from '../pattern-input.tsx';
import { PatternWorldProvider } from '../pattern-world.tsx';

type Spec = ListingDetail['spec'];
type Each = NonNullable<Spec['each']>;
type Words = 'title' | 'description' | 'intro';

interface Props {
  spec: Spec;
  columns: readonly ListingColumn[];
  issues: readonly Issue[];
  clock: Clock;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}

const WORDS: readonly { name: Words; label: string; none: string }[] = [
  { name: 'title', label: 'Title of each', none: '{value}' },
  { name: 'description', label: 'Description', none: '{value.description}' },
  { name: 'intro', label: 'Intro of each', none: '{value.description}' },
];

/** What a listing has a page for each of: a subject, an option, a year, a month; and their words. */
export function EachLines(props: Props) {
  const { spec, columns, issues, clock, readOnly, onChange } = props;
  const { each, ...rest } = spec;
  const ways = columns.flatMap(waysOf);
  const chosen =
    each && ways.find((way) => way.by === each.by && way.per === (each.per ?? way.per));
  const own = issues.filter(({ path = '' }) => /\/each(?:$|\/(?:by|per)$)/.test(path));
  const choose = (value: string): void => {
    const way = ways.find((w) => w.value === value);
    const { by: _b, per: _p, ...words } = each ?? { index: 'values' as const };
    const next = way && { ...words, by: way.by, ...(way.isDate ? { per: way.per as 'year' } : {}) };
    onChange((next ? { ...rest, each: next } : rest) as Spec);
  };
  return (
    <div className="border-t border-rule pt-2">
      <Line
        label="A page for each"
        htmlFor="each-by"
        help="Below its address, while it has entries."
      >
        <select
          id="each-by"
          className="control"
          disabled={readOnly}
          value={chosen?.value ?? each?.by ?? ''}
          onChange={(e) => choose(e.target.value)}
        >
          <option value="">No pages of single values</option>
          {each && !chosen && <option value={each.by}>{each.by}</option>}
          {ways.map(({ value, label }) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
        {own.map(({ message, fix }, i) => (
          <p key={i} className="mt-1 text-alarm">
            {message} <span className="text-muted">{fix}</span>
          </p>
        ))}
      </Line>
      {each && (
        <EachWords
          {...{ each, issues, clock, readOnly }}
          onEach={(e) => onChange({ ...spec, each: e })}
        />
      )}
    </div>
  );
}

interface Way {
  value: string;
  label: string;
  by: string;
  per: ListingColumn['fans'][number];
  isDate: boolean;
}

function waysOf({ name, label, fans }: ListingColumn): Way[] {
  return fans.map((per) => {
    const isDate = per === 'year' || per === 'month';
    return {
      ...{ by: name, per, isDate },
      value: isDate ? `${name}/${per}` : name,
      label: per === 'month' ? `year and month of ${label}` : isDate ? `year of ${label}` : label,
    };
  });
}

/** What stands at the address above, and what the pages of single values say. */
function EachWords({
  each,
  issues,
  clock,
  readOnly,
  onEach,
}: Pick<Props, 'issues' | 'clock' | 'readOnly'> & { each: Each; onEach: (each: Each) => void }) {
  const put = (name: Words, words: string): void => {
    const { [name]: _, ...rest } = each;
    onEach(words === '' ? rest : { ...rest, [name]: words });
  };
  return (
    <>
      <Line label="At its address" htmlFor="each-index">
        <select
          id="each-index"
          className="control"
          disabled={readOnly}
          value={each.index}
          onChange={(e) => onEach({ ...each, index: e.target.value as Each['index'] })}
        >
          <option value="values">Links to all of them</option>
          <option value="entries">All its entries, with links to them</option>
        </select>
      </Line>
      <PatternWorldProvider type={null} specimen={null} clock={clock}>
        {WORDS.map(({ name, label, none }) => (
          <Line key={name} label={label} htmlFor={`each-${name}`}>
            <PatternInput
              id={`each-${name}`}
              value={each[name] ?? ''}
              placeholder={none}
              issues={issues.filter(({ path = '' }) => path.endsWith(`/each/${name}`))}
              readOnly={readOnly}
              onChange={(words) => put(name, words)}
            />
          </Line>
        ))}
      </PatternWorldProvider>
    </>
  );
}
