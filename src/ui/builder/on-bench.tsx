import { ClockLink } from './shell/clock-link.tsx';

const SHOWN = 5;

/** Edits of what a screen shows that stand on the bench. */
export function OnBench({ lines }: { lines: string[] }) {
  if (lines.length === 0) return null;
  return (
    <div className="text-muted">
      <p>
        Shown with what is on the{' '}
        <ClockLink href="/build/bench" className="underline">
          bench
        </ClockLink>
        , not public yet:
      </p>
      <ul className="list-disc pl-5">
        {lines.slice(0, SHOWN).map((line, i) => (
          <li key={i} className="break-words">
            {line}
          </li>
        ))}
        {lines.length > SHOWN && <li>{`and ${lines.length - SHOWN} more`}</li>}
      </ul>
    </div>
  );
}
