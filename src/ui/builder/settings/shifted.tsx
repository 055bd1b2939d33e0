import type { SettingsOutcome } from '@/server/queries/settings.ts';
import { counted, instantWords } from '../format.ts';

/** The plans that keep their instant and are read at another hour in the zone that is chosen. */
export function Shifted({
  total,
  first,
  was,
  zone,
  now,
}: SettingsOutcome['shifted'] & { was: string; zone: string; now: number }) {
  if (total === 0) return null;
  const verb = { publish: 'goes live', retire: 'leaves' };
  return (
    <section aria-label="Plans in the other zone" className="border-l-[3px] border-amber-mark pl-3">
      <p>{`${counted(total, 'plan keeps its instant', 'plans keep their instants')}, and the clock on the wall says another hour then:`}</p>
      <ul className="mt-1">
        {first.map(({ name, action, at }, i) => (
          <li key={i}>
            {`“${name}” ${verb[action]} ${instantWords(at, was, now)}: now ${instantWords(at, zone, now)}`}
          </li>
        ))}
        {total > first.length && <li className="text-muted">{`… ${total} in all`}</li>}
      </ul>
    </section>
  );
}
