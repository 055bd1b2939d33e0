import type { Issue } from '@/core/issue.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { ListingDetail } from '@/server/queries/listing.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { PatternInput } from '../pattern-input.tsx';
import { PatternWorldProvider } from '../pattern-world.tsx';

type Spec = ListingDetail['spec'];
type Words = 'label' | 'address' | 'intro' | 'empty';

interface Props {
  spec: Spec;
  issues: readonly Issue[];
  clock: Clock;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}

/** What a listing is called, where it stands, and its words. */
export function ListingWords(props: Props) {
  const { spec, issues, clock, readOnly, onChange } = props;
  const put = (name: Words, words: string): void => {
    const { [name]: _, ...rest } = spec;
    const isKept = words !== '' || name === 'label' || name === 'empty';
    onChange((isKept ? { ...rest, [name]: words } : rest) as Spec);
  };
  const line = { spec, issues, readOnly, put };
  const intro = issues.filter(({ path = '' }) => path.endsWith('/intro'));
  return (
    <div className="border-t border-rule pt-2">
      <WordsLine {...line} name="label" label="Called" />
      <WordsLine {...line} name="address" label="Address" help="None: inside templates alone." />
      <Line label="Intro" htmlFor="listing-intro" help="Above its cards.">
        <PatternWorldProvider type={null} specimen={null} clock={clock}>
          <PatternInput
            id="listing-intro"
            value={spec.intro ?? ''}
            issues={intro}
            readOnly={readOnly}
            onChange={(words) => put('intro', words)}
          />
        </PatternWorldProvider>
      </Line>
      <WordsLine {...line} name="empty" label="Where empty" />
    </div>
  );
}

/** A line of words; what is wrong with them below. */
function WordsLine({
  spec,
  issues,
  readOnly,
  put,
  name,
  label,
  help = null,
}: Pick<Props, 'spec' | 'issues' | 'readOnly'> & {
  put: (name: Words, words: string) => void;
  name: Words;
  label: string;
  help?: string | null;
}) {
  const own = issues.filter(({ path = '' }) => path.endsWith(`/${name}`));
  return (
    <Line label={label} htmlFor={`listing-${name}`} help={help}>
      <input
        id={`listing-${name}`}
        className={`control ${name === 'address' ? 'font-mono !text-note' : ''}`}
        maxLength={500}
        readOnly={readOnly}
        aria-invalid={own.length > 0 || undefined}
        value={spec[name] ?? ''}
        onChange={(e) => put(name, e.target.value)}
      />
      {own.map(({ message, fix }, i) => (
        <p key={i} className="mt-1 text-alarm">
          {message} <span className="text-muted">{fix}</span>
        </p>
      ))}
    </Line>
  );
}
