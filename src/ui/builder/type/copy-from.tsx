import { Line } from '@/ui/primitives/line.tsx';
import type { TypeDetail } from '@/server/queries/type.ts';

type Other = TypeDetail['types'][number];

/** Takes what another type has set for a link of the chain. */
export function CopyFrom({
  what,
  own,
  types,
  onPick,
}: {
  /** What is copied: "address". */
  what: string;
  /** Key of the type at hand. */
  own: string;
  types: readonly Other[];
  onPick: (other: Other) => void;
}) {
  const others = types.filter(({ key }) => key !== own);
  if (others.length === 0) return null;
  return (
    <Line label="Same as">
      <select
        className="control !w-64"
        aria-label={`Copy the ${what} of another type`}
        value=""
        onChange={(e) => {
          const other = others.find(({ key }) => key === e.target.value);
          if (other) onPick(other);
        }}
      >
        <option value="">another type …</option>
        {others.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
    </Line>
  );
}
