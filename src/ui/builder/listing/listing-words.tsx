import type { Issue } from '@/core/issue.ts';
import type { ListingDetail } from '@/server/queries/listing.ts';
import { Line } from '@/ui/primitives/line.tsx';

type Spec = ListingDetail['spec'];

/** What is said of a listing, each with its words. */
const LINES = [
  { name: 'label', label: 'Called', help: null },
  { name: 'address', label: 'Address', help: 'Left out, it stands inside templates alone.' },
  { name: 'intro', label: 'Intro', help: 'Above its cards; {braces} read the site.' },
  { name: 'empty', label: 'Where empty', help: null },
] as const;

/** What a listing is called, where it stands, and its words. */
export function ListingWords({
  spec,
  issues,
  readOnly,
  onChange,
}: {
  spec: Spec;
  issues: readonly Issue[];
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}) {
  const put = (name: (typeof LINES)[number]['name'], words: string): void => {
    const { [name]: _, ...rest } = spec;
    const isKept = words !== '' || name === 'label' || name === 'empty';
    onChange((isKept ? { ...rest, [name]: words } : rest) as Spec);
  };
  return (
    <div className="border-t border-rule pt-2">
      {LINES.map(({ name, label, help }) => {
        const own = issues.filter(({ path = '' }) => path.endsWith(`/${name}`));
        return (
          <Line key={name} label={label} htmlFor={`listing-${name}`} help={help}>
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
      })}
    </div>
  );
}
