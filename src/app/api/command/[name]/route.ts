import { randomUUID } from 'node:crypto';
import { container } from '@/server/process/container.ts';
import { isAskedFor, isCommand } from '@/server/commands/index.ts';
import { perform } from '@/server/process/perform.ts';

/**
 * Carries out a command for whoever is signed in; its input, JSON, is read on the writer's
 * thread.
 */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ name: string }> },
): Promise<Response> {
  const process = container();
  const actor = await (await process.auth).actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  const { name } = await params;
  if (!isCommand(name) || !isAskedFor(name))
    return Response.json({ message: 'There is no such command.' }, { status: 404 });
  const job = new URL(request.url).searchParams.get('job')?.slice(0, 64) ?? randomUUID();
  const result = await perform(process, actor, name, { input: await request.text(), job });
  const malformed = !result.ok && result.issues.some((i) => i.code === 'wrong-form' && !i.path);
  return Response.json(result, { status: malformed ? 400 : 200 });
}
