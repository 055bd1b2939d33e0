import type { FilterWorld } from '@/core/listing/plan.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { pickedAt } from './picks.ts';
import type { Subjects } from './subject-store.ts';

/** What filters ask of a stored site as of an instant. */
export function filterWorld(connection: Connection, subjects: Subjects, at: Instant): FilterWorld {
  return {
    keysWithin: (set, key) => subjects.keysWithin(set, key),
    gone: (set) => subjects.gone(set),
    picked: (picks) => pickedAt(connection, picks, at, { offset: 0, limit: -1 }),
  };
}
