import { z } from 'zod';
import { type WorkingCopy, inLanguage } from '../db/working-copies.ts';
import { type Actor, NotPermitted } from '../permit.ts';
import { type Standing, isPurged, standingOf } from '../queries/standing.ts';
import type { Container } from './container.ts';
import type { Present } from './presence.ts';

const said = z.strictObject({
  /** Id of an entry; null for a new one. */
  entry: z.string().max(200).nullable(),
  /** Key of the type. */
  type: z.string().max(64),
  /** BCP 47 tag of a further language that is written in; null for the site's own. */
  language: z.string().max(35).nullable().default(null),
  /** Tells windows apart. */
  window: z.string().min(1).max(64),
  writing: z.boolean(),
  /** Unsaved words to keep; null throws those away that are kept. */
  keep: z
    .strictObject({
      revision: z.int().nullable(),
      edits: z.record(z.string().max(64), z.unknown()),
    })
    .nullable()
    .optional(),
  /** Whether it asks for the words that are kept. */
  asks: z.boolean().default(false),
  /** Whether the window leaves. */
  leaves: z.boolean().default(false),
});

/** What unsaved words about an entry are kept under. */
export const aboutEntry = (id: string): string => `entry ${id}`;

/** What a screen is told. */
export interface Heard extends Standing {
  others: (Present & { self: boolean })[];
  /** The words that are kept, where they were asked for. */
  copy: WorkingCopy | null;
}

/** Keeps somebody's unsaved words, and tells who else has the entry open and how it stands. */
export function noteWriting(
  { view, copies, presence }: Pick<Container, 'view' | 'copies' | 'presence'>,
  actor: Actor,
  input: unknown,
): { status: number; body: Heard | { message: string } } {
  const parsed = said.safeParse(input);
  if (!parsed.success)
    return { status: 400, body: { message: 'The request is not of the right form.' } };
  const { entry, type, language, window, writing, keep, asks, leaves } = parsed.data;
  const about = entry === null ? `new ${type}` : aboutEntry(entry);
  const words = language === null ? about : inLanguage(about, language);
  const now = Date.now();
  try {
    const standing = standingOf(view, actor, entry);
    // A window that was open while its entry was purged goes on sending.
    const isGone = entry !== null && isPurged(view, entry);
    if (keep === null) copies.drop(actor.id, words);
    else if (keep && !isGone) copies.keep(actor.id, words, { at: now, ...keep });
    const who = { person: actor.id, name: actor.name, writing };
    const others = entry === null ? [] : presence.note(about, window, who, now);
    if (leaves) presence.leave(about, window);
    const copy = asks ? copies.of(actor.id, words) : null;
    return { status: 200, body: { ...standing, others, copy } };
  } catch (error) {
    if (error instanceof NotPermitted) return { status: 403, body: { message: error.message } };
    throw error;
  }
}
