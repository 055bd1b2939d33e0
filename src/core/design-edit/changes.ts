import { fingerprint } from '../fingerprint.ts';

/** A name for a part as it stands; any change gives another. */
export function versionOf(part: unknown): string {
  return fingerprint(JSON.stringify(part));
}

/** The properties in which a part differs from the one opened, as an edit has them. */
export function changesOf(opened: object, now: object): Record<string, unknown> {
  const [before, after] = [opened, now] as Record<string, unknown>[];
  const names = new Set([...Object.keys(before!), ...Object.keys(after!)]);
  return Object.fromEntries(
    [...names]
      .filter((name) => JSON.stringify(before![name]) !== JSON.stringify(after![name]))
      .map((name) => [name, after![name] ?? null]),
  );
}

/** A part with properties set; null takes one away. */
export function withChanges<T extends object>(part: T, set: Record<string, unknown>): T {
  const all = { ...part, ...set } as Record<string, unknown>;
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== null)) as T;
}
