/**
 * One line of the table: a ratio within this run, or a time. `met` says whether it is on the
 * right side of its target.
 */
export interface PerfRow {
  name: string;
  value: number;
  unit: string;
  target: string;
  met: boolean;
}

const ROUNDS = 9;

/** CPU seconds (user and system) that running a job takes. */
function cpuOf(job: () => void): number {
  const before = process.cpuUsage();
  job();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1e6;
}

/** The median CPU times of two jobs, run in turns. */
export function medians(ours: () => void, peer: () => void): { ours: number; peer: number } {
  const times: { ours: number[]; peer: number[] } = { ours: [], peer: [] };
  for (let round = 0; round <= ROUNDS; round++) {
    const pair = round % 2 === 0 ? ([ours, peer] as const) : ([peer, ours] as const);
    for (const job of pair) {
      const time = cpuOf(job);
      if (round > 0) (job === ours ? times.ours : times.peer).push(time); // the first round warms up
    }
  }
  return { ours: median(times.ours), peer: median(times.peer) };
}

/** The middle of a list of numbers. */
export function median(values: number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
}

/** The value below which a share of sorted values lies. */
export function quantile(sorted: readonly number[], share: number): number {
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
}

/** A row for "at least" (`≥`) or "at most" (`≤`) targets. */
export function row(name: string, value: number, relation: '≥' | '≤', target: number): PerfRow {
  const rounded = Math.round(value * 1000) / 1000;
  return {
    name,
    value: rounded,
    unit: 'ratio',
    target: `${relation} ${target}`,
    met: relation === '≥' ? rounded >= target : rounded <= target,
  };
}
