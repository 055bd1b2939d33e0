import type { LifeSpan } from '@/server/queries/content.ts';
import { dayWords } from '../format.ts';

const DAY_MS = 86_400_000;

/** The stretch of time that every bar of a table shares. */
export interface LifeScale {
  from: number;
  to: number;
  at: number;
  now: number;
  zone: string;
}

/** From 120 days before the clock to 60 after. */
export function lifeScale(at: number, now: number, zone: string): LifeScale {
  return { from: at - 120 * DAY_MS, to: at + 60 * DAY_MS, at, now, zone };
}

const percent = (t: number, { from, to }: LifeScale): number =>
  Math.min(100, Math.max(0, ((t - from) / (to - from)) * 100));

/** An entry's life: solid where public, hatched where planned, an outline where only a draft is there. */
export function LifeBar({
  spans,
  scale,
  tall = false,
}: {
  spans: LifeSpan[];
  scale: LifeScale;
  tall?: boolean;
}) {
  const pieces = spans.flatMap(({ from, to }) => {
    const end = to ?? scale.to + 1;
    const cut = Math.min(end, Math.max(from, scale.now));
    return [
      { kind: 'past', from, to: cut },
      { kind: 'planned', from: cut, to: end },
    ].filter(
      (p) =>
        p.to > p.from &&
        p.to > scale.from &&
        p.from < scale.to &&
        !(p.kind === 'planned' && from <= scale.now && to === null),
    );
  });
  const running = spans.filter((s) => s.from <= scale.now && s.to === null);
  return (
    <span
      className="life"
      role="img"
      aria-label={lifeWords(spans, scale)}
      title={lifeWords(spans, scale)}
      style={tall ? { height: 20 } : undefined}
    >
      {pieces.map((p, i) => (
        <i
          key={i}
          className={p.kind}
          style={{
            left: `${percent(p.from, scale)}%`,
            width: `max(3px, ${percent(p.to, scale) - percent(p.from, scale)}%)`,
          }}
        />
      ))}
      {running.map((s) => (
        <i
          key={s.from}
          className="running"
          style={{
            left: `${percent(Math.max(s.from, scale.now), scale)}%`,
            right: 0,
            opacity: 0.35,
          }}
        />
      ))}
      {spans.length === 0 && (
        <i className="draft" style={{ left: `${percent(scale.now, scale) - 8}%`, width: '8%' }} />
      )}
      <i className="clock" style={{ left: `${percent(scale.at, scale)}%` }} />
    </span>
  );
}

/** "Live since 3 Feb 2026; leaves 1 Oct 2026". */
export function lifeWords(spans: LifeSpan[], { at, zone }: LifeScale): string {
  const live = spans.find((s) => s.from <= at && (s.to === null || at < s.to));
  if (live) {
    let [first, last] = [live, live];
    for (const s of [...spans].reverse()) if (s.to === first.from) first = s;
    for (const s of spans) if (s.from === last.to) last = s;
    return `Live since ${dayWords(first.from, zone)}${last.to === null ? '' : `; leaves ${dayWords(last.to, zone)}`}`;
  }
  const next = spans.find((s) => s.from > at);
  if (next) return `Goes live ${dayWords(next.from, zone)}`;
  const past = spans.at(-1);
  return past?.to ? `Left ${dayWords(past.to, zone)}` : 'Never public';
}
