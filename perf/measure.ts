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

/** Many short rounds: what else the machine does in one of them is in neither half of most. */
const ROUNDS = 41;

/** CPU seconds (user and system) that running a job takes. */
function cpuOf(job: () => void): number {
  const before = process.cpuUsage();
  job();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1e6;
}

/** How much of the CPU time of a job another one takes: the median of rounds made in turns. */
export function share(job: () => void, of: () => void): number {
  const ratios: number[] = [];
  for (let round = 0; round <= ROUNDS; round++) {
    const isFirst = round % 2 === 0;
    const before = isFirst ? cpuOf(job) : 0;
    const peer = cpuOf(of);
    const ours = isFirst ? before : cpuOf(job);
    if (round > 0) ratios.push(ours / peer); // the first round warms up
  }
  return median(ratios);
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

/** A row without a target. */
export function reported(name: string, value: number): PerfRow {
  const rounded = Math.round(value * 100) / 100;
  return { name, value: rounded, unit: 'ratio', target: 'reported', met: true };
}
