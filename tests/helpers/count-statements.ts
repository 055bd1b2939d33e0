import type { Connection } from '@/server/db/connection.ts';

const METHODS = ['get', 'all', 'iterate', 'run'] as const;

/** How many SQL statements something runs. */
export function countStatements({ driver }: Connection, act: () => void): number {
  const statements = Object.getPrototypeOf(driver.prepare('SELECT 1')) as Record<string, unknown>;
  const before = METHODS.map((name) => statements[name] as (...given: unknown[]) => unknown);
  let count = 0;
  METHODS.forEach((name, i) => {
    statements[name] = function counted(this: unknown, ...given: unknown[]) {
      count += 1;
      return before[i]!.apply(this, given);
    };
  });
  try {
    act();
  } finally {
    METHODS.forEach((name, i) => (statements[name] = before[i]));
  }
  return count;
}
