import { isListed } from '../design/presets.ts';
import type { Design } from '../design/spec.ts';
import type { EntryView, Subject } from '../design/values.ts';
import type { Bound, RenderScope } from './context.ts';

/** Subjects lie within each other at most so deep. */
const DEEPEST = 50;

/** A subject as an entry holds it: what a key of it stands for. */
interface Held {
  subject: Subject;
  key: string;
  own: EntryView | null;
}

/** Where the page is that lists what has a subject; null where there is none. */
export type SubjectLink = (held: Held, scope: RenderScope) => string | null;

/**
 * Where subjects of a field lead: to the listing of all that has that one alone, else to its page of
 * a listing that has one for each.
 */
export function subjectLinks({ listings }: Design, { field, type }: Bound): SubjectLink {
  const own = listings.filter((l) => l.address !== undefined && l.type === type?.key);
  const single = new Map<string, string>();
  for (const { address, where } of own) {
    if (!where || !('field' in where) || where.field !== field.key) continue;
    const [subject, ...more] = [where.value ?? []].flat();
    const stands = where.op === 'is' || where.op === 'any-of';
    if (stands && more.length === 0 && !single.has(String(subject)))
      single.set(String(subject), address!);
  }
  const each = own.find((l) => l.each?.by === field.key && !l.where)?.address ?? null;
  return ({ subject, key, own: holder }, scope) => {
    // A listing may name a subject by a key that was merged into another.
    const alone = single.get(subject.key) ?? single.get(key);
    if (alone !== undefined) return alone;
    // The page is there for who is on it.
    return each !== null && holder && isListed(holder) ? below(each, subject, scope) : null;
  };
}

function below(address: string, subject: Subject, scope: RenderScope): string {
  const slugs: string[] = [];
  for (let at: Subject | null = subject; at && slugs.length < DEEPEST;) {
    slugs.unshift(at.slug);
    at = at.parent === null ? null : scope.subject(at.set, at.parent);
  }
  return [address, ...slugs].join('/');
}
