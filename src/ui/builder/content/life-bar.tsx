import type { ContentRow } from '@/server/queries/content.ts';
import type { LifeSpan } from '@/server/queries/life-span.ts';
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

/**
 * An entry's life: solid where public, hatched where planned, an outline where only a draft is
 * there.
 */
export function LifeBar({
  spans,
  created,
  scale,
  language = null,
}: {
  spans: LifeSpan[];
  /** When the entry was made, where that is known: a draft begins there. */
  created: number | null;
  scale: LifeScale;
  /** What it is the life in, where there are several; then one is told from the other by it. */
  language?: string | null;
}) {
  const said = lifeWords(spans, scale);
  const words = language === null ? said : `${language}: ${said}`;
  return (
    <span className="life" role="img" aria-label={words} title={words}>
      {piecesOf(spans, created, scale).map(({ kind, from, to, least }, i) => {
        const left = percent(from, scale);
        const width = `max(${least}px, ${percent(to, scale) - left}%)`;
        return <i key={i} className={kind} style={{ left: `${left}%`, width }} />;
      })}
      <i className="clock" style={{ left: `${percent(scale.at, scale)}%` }} />
    </span>
  );
}

/** An entry's life in each language of its site, the site's own first. */
export function LifeBars({
  row: { spans, created, elsewhere },
  ownLanguage,
  scale,
}: {
  row: Pick<ContentRow, 'spans' | 'created' | 'elsewhere'>;
  ownLanguage: string;
  scale: LifeScale;
}) {
  if (elsewhere.length === 0) return <LifeBar {...{ spans, created, scale }} />;
  return (
    <span className="lives">
      <LifeBar {...{ spans, created, scale }} language={ownLanguage} />
      {elsewhere.map(({ isWritten, ...life }) =>
        isWritten ? (
          <LifeBar key={life.language} {...{ ...life, created, scale }} />
        ) : (
          <span key={life.language} className="life" title={`${life.language}: nothing written`} />
        ),
      )}
    </span>
  );
}

/** A stretch of a bar; `least`: its least width, px. */
interface Piece {
  kind: 'past' | 'planned' | 'running' | 'draft';
  from: number;
  to: number;
  least: number;
}

function piecesOf(spans: LifeSpan[], created: number | null, scale: LifeScale): Piece[] {
  const { now } = scale;
  if (spans.length === 0)
    return [{ kind: 'draft', from: created ?? now - 14 * DAY_MS, to: now, least: 6 }];
  const pieces = spans.flatMap(({ from, to }): Piece[] => {
    const end = to ?? scale.to + 1;
    const cut = Math.min(end, Math.max(from, now));
    const ahead = from <= now && to === null ? 'running' : 'planned';
    return [
      { kind: 'past', from, to: cut, least: 3 },
      { kind: ahead, from: cut, to: end, least: 3 },
    ];
  });
  return pieces.filter(({ from, to }) => to > from && to > scale.from && from < scale.to);
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

/** The head above the bars of a table: the scale they share, the clock, and what the forms mean. */
export function LifeHead({
  scale,
  zone,
  languages,
}: {
  scale: LifeScale;
  zone: string;
  /** Of the bars of a row, from above; one where there is one. */
  languages: readonly string[];
}) {
  const place = `${percent(scale.at, scale)}%`;
  return (
    <span className="block text-note">
      <span className="flex gap-3">
        <Legend kind="past" words="public" />
        <Legend kind="planned" words="planned" />
        <Legend kind="draft" words="draft" />
      </span>
      {languages.length > 1 && <span className="block truncate">{languages.join(' above ')}</span>}
      <span className="relative flex justify-between">
        <span>{dayWords(scale.from, zone)}</span>
        <span
          className="absolute -translate-x-1/2 bg-paper px-1 text-amber-text"
          style={{ left: place }}
        >
          {scale.at === scale.now ? 'now' : dayWords(scale.at, zone)}
        </span>
        <span>{dayWords(scale.to, zone).replace(/ \d+$/, '')}</span>
      </span>
    </span>
  );
}

function Legend({ kind, words }: { kind: string; words: string }) {
  return (
    <span className="flex items-center gap-1">
      <span className="life life-legend" aria-hidden>
        <i className={kind} style={{ left: 0, right: 0 }} />
      </span>
      {words}
    </span>
  );
}
