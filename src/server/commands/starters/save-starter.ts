import { randomBytes } from 'node:crypto';
import { z } from 'zod';
import { takenOver } from '@/core/design/taken-over.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { valuesOfForm } from '../../store/form-values.ts';
import { valuesOfType } from '../../store/stored-values.ts';
import { personName } from '../../store/persons.ts';
import {
  type StarterRow,
  filledBy,
  putStarter,
  starterOf,
  startersOf,
} from '../../store/starters.ts';
import { type CommandContext, Refused, command } from '../definition.ts';
import { typeOf } from '../entry-lookup.ts';

/** So many starters of a type can be told apart in a menu. */
const MOST = 100;
/** Letters in a name at most. */
export const LONGEST_NAME = 200;

/** Saves a starter, making it where it is new. What was begun from it before stays as it is. */
export const saveStarter = command({
  deed: 'write-entry',
  input: z.strictObject({
    /** Null for a new one. */
    id: z.string().max(64).nullable(),
    /** The type's id. */
    type: z.string().max(64),
    name: z.string().trim().min(1).max(LONGEST_NAME),
    /** By field id; required ones may be blank. */
    values: z.record(z.string().max(64), z.unknown()),
    /** When it was saved that the person saw, ms UTC; one saved since refuses this. */
    seen: z.int().nullable(),
  }),
  about: ({ type }) => [{ of: 'type', id: type }],
  run(context, { id, type: typeId, name, values, seen }) {
    const { connection, site, actor, at } = context;
    const type = typeOf(context, typeId);
    const before = id === null ? undefined : starterOf(connection, id);
    if (id !== null && before?.type !== type.id) throw new Refused(gone());
    if (before && seen !== null && before.saved !== seen) throw new Refused(newer(context, before));
    const read = valuesOfForm(connection, site, type, values, {
      ...{ now: at, entry: null, role: actor.role },
      before: before && valuesOfType(type, before.filled, site.design.site),
    });
    if (read.issues.length > 0) throw new Refused(...read.issues);
    return writeStarter(context, type, { name, values: read.values, before });
  },
});

/** Writes a starter of a type, in place of the one before. @throws Refused */
export function writeStarter(
  context: CommandContext,
  type: ContentType,
  {
    name,
    values,
    before,
  }: { name: string; values: Record<string, unknown>; before: StarterRow | undefined },
): { id: string; at: number } {
  const { connection, site, actor, at } = context;
  const others = startersOf(connection, type.id).filter(({ id }) => id !== before?.id);
  if (others.length >= MOST) throw new Refused(tooMany(type));
  if (others.some((other) => other.name === name)) throw new Refused(taken(type, name));
  const id = before?.id ?? `${type.key}-${randomBytes(4).toString('hex')}`;
  const { language } = site.design.site;
  const filled = filledBy(type, takenOver(type, values), { language, before: before?.filled });
  putStarter(connection, { id, type: type.id, name, filled, author: actor.id, saved: at });
  return { id, at };
}

/** What there is to say of a starter that is not there. */
export function gone(): Refused['issues'][number] {
  return {
    code: 'unknown-starter',
    message: 'There is no such starter any more.',
    fix: 'Go back to its type and choose another.',
  };
}

function newer({ connection }: CommandContext, { author }: StarterRow): Refused['issues'][number] {
  return {
    code: 'newer-starter',
    message: `${personName(connection, author) || 'Somebody'} saved this starter while you were writing.`,
    fix: 'Save again to put yours in its place, or undo your changes to see theirs.',
  };
}

function tooMany({ label }: ContentType): Refused['issues'][number] {
  return {
    code: 'too-many-starters',
    message: `${label} has ${MOST} starters, and no more can be told apart.`,
    fix: 'Delete one that nobody uses.',
  };
}

function taken({ label }: ContentType, name: string): Refused['issues'][number] {
  return {
    code: 'name-taken',
    path: 'name',
    message: `${label} has a starter “${name}” already.`,
    fix: 'Call this one something else.',
  };
}
