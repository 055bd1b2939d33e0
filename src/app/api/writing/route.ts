import { container } from '@/server/process/container.ts';
import { parseInput } from '@/server/process/json-input.ts';
import { noteWriting } from '@/server/process/note-writing.ts';

/**
 * Hears from a screen on which somebody writes: keeps their unsaved words, and tells who else has it
 * open and whether somebody saved meanwhile.
 */
export async function POST(request: Request): Promise<Response> {
  const process = container();
  const actor = await (await process.auth).actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  const read = parseInput(await request.text());
  if (!read.ok) return Response.json({ message: read.issues[0]!.message }, { status: 400 });
  const { status, body } = noteWriting(process, actor, read.value);
  return Response.json(body, { status });
}
