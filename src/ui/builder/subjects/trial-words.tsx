import { Issues } from '@/ui/primitives/issues.tsx';
import { counted } from '../format.ts';
import type { Trial } from './use-trial.ts';

/** What a change would move, with some of it; or what stands in its way. */
export function TrialWords({ trial }: { trial: Trial | null }) {
  if (!trial) return <p className="text-muted">Looking at what would move …</p>;
  if (trial.issues.length > 0) return <Issues issues={trial.issues} />;
  if (trial.moved === 0) return <p className="text-muted">No address moves.</p>;
  return (
    <div>
      <p>{`${counted(trial.moved, 'address moves', 'addresses move')}, and the old ones lead there:`}</p>
      <ul className="mt-1 font-mono text-note">
        {trial.examples.map(({ from, to }) => (
          <li key={from} className="break-all">{`${from} → ${to}`}</li>
        ))}
      </ul>
    </div>
  );
}
