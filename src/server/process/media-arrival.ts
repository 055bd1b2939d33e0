import { type Result, refused } from '@/core/issue.ts';
import type { Font } from '@/core/style/fonts.ts';
import { type Actor, type Deed, NotPermitted, SITE, permit } from '../permit.ts';
import { type Container, container } from './container.ts';

/** A medium as it came in. */
export interface Arrived {
  id: string;
  /** Whether it was not there before. */
  isNew: boolean;
}

/**
 * Answers a request about files on their way into the media, for whoever may write, or do what is
 * named; what is refused is data.
 */
export async function withMedia(
  request: Request,
  answer: (parts: Container, actor: Actor) => Promise<Result<unknown>> | Result<unknown>,
  deed: Deed = 'write-entry',
): Promise<Response> {
  const parts = container();
  const actor = await (await parts.auth).actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  try {
    permit(actor, deed, SITE);
  } catch (error) {
    if (!(error instanceof NotPermitted)) throw error;
    return Response.json({ message: error.message }, { status: 403 });
  }
  return Response.json(await answer(parts, actor));
}

/** Keeps a file that has arrived: as a new medium, or in the place of one. */
export async function takeIn(
  { incoming, writer }: Container,
  actor: Actor,
  id: string,
  replaces: string | null,
): Promise<Result<Arrived>> {
  const finished = await incoming.finish(actor.id, id);
  if (!finished.ok) return finished;
  const { name, file } = finished.value;
  const { path: _, ...kept } = file;
  if (replaces === null) return writer.run('addMedium', actor, { name, file: kept });
  const replaced = await writer.run('replaceMedium', actor, { id: replaces, file: kept });
  return replaced.ok ? { ok: true, value: { id: replaces, isNew: false } } : replaced;
}

/**
 * Keeps a font that has arrived among the files of the style, for whoever may change that; gives
 * what it says of itself.
 */
export async function takeFont(
  { incoming, writer }: Container,
  actor: Actor,
  id: string,
): Promise<Result<Font>> {
  const finished = await incoming.finishFont(actor.id, id);
  if (!finished.ok) return finished;
  const { name, file } = finished.value;
  const { path: _, font, ...kept } = file;
  const added = await writer.run('addFont', actor, { name, file: kept });
  return added.ok ? { ok: true, value: { ...font, file: added.value.file } } : added;
}

/** That a request is not of the form that it must have. */
export const WRONG_FORM: Result<never> = refused({
  code: 'wrong-form',
  message: 'The request is not of the right form.',
  fix: 'Reload the page and try again.',
});
