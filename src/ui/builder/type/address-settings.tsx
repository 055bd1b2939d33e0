import { tellingApart } from '@/core/address/alternatives.ts';
import type { Issue } from '@/core/issue.ts';
import type { TypeDetail, TypeOutcome } from '@/server/queries/type.ts';
import type { PathElsewhere } from '@/server/queries/paths-elsewhere.ts';
import { Line, Result } from '@/ui/primitives/line.tsx';
import { AddressParts } from '../address-parts.tsx';
import { PatternInput } from '../pattern-input.tsx';
import { ClockLink } from '../shell/clock-link.tsx';

type Spec = TypeDetail['spec'];

/** A type's address pattern, what it gives, and what becomes of clashes. */
export function AddressSettings({
  spec,
  outcome,
  readOnly,
  issues,
  onAddress,
  onClash,
}: {
  spec: Spec;
  outcome: TypeOutcome;
  readOnly: boolean;
  issues: Issue[];
  onAddress: (pattern: string) => void;
  onClash: (clash: Spec['clash']) => void;
}) {
  return (
    <>
      <Line
        label="Pattern"
        htmlFor="address"
        help="Braces read fields; a part in [ ] is left out where what it reads is blank."
      >
        <PatternInput
          id="address"
          isAddress
          value={spec.address ?? ''}
          placeholder="No pages of its own"
          readOnly={readOnly}
          issues={issues}
          result={
            <AddressParts path={outcome.path} pieces={outcome.pieces} missing={outcome.noPath} />
          }
          onChange={onAddress}
        />
      </Line>
      {outcome.elsewhere.map((there) => (
        <Elsewhere key={there.key} there={there} />
      ))}
      <Line label="When taken" htmlFor="clash">
        <select
          id="clash"
          className="control"
          disabled={readOnly}
          value={spec.clash}
          onChange={(e) => onClash(e.target.value as Spec['clash'])}
        >
          <option value="number">the later entry is numbered: -2, -3, …</option>
          <option value="refuse">the later entry is refused</option>
        </select>
        {!readOnly && <TellApart spec={spec} onAddress={onAddress} />}
      </Line>
    </>
  );
}

/** The pattern in a further language, and what it gives; it is said with its other texts. */
function Elsewhere({ there: { key, label, pattern, path, isOwn } }: { there: PathElsewhere }) {
  return (
    <Line label={label}>
      <p className="flex items-baseline gap-3 pt-1.5">
        <code className="min-w-0 truncate font-mono text-table">{pattern}</code>
        <ClockLink
          className="link shrink-0"
          href={`/build/settings/languages?open=${encodeURIComponent(key)}`}
        >
          Say it otherwise
        </ClockLink>
      </p>
      <Result>
        <span className="font-mono text-table">{path ?? 'No address'}</span>
        {!isOwn && <span className="text-muted"> · without words of its own</span>}
      </Result>
    </Line>
  );
}

/** What clashing addresses can be told apart by, each added at a press. */
function TellApart({ spec, onAddress }: { spec: Spec; onAddress: (pattern: string) => void }) {
  const ways = tellingApart(spec.address ?? '', spec.fields);
  if (ways.length === 0) return null;
  return (
    <p className="mt-1 text-note text-muted">
      {'Or told apart by '}
      {ways.map(({ words, pattern }, i) => (
        <span key={words}>
          {i > 0 && ', '}
          <button
            type="button"
            className="text-spruce underline"
            onClick={() => onAddress(pattern)}
          >
            {words}
          </button>
        </span>
      ))}
    </p>
  );
}
