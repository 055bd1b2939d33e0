import { randomUUID } from 'node:crypto';
import { container } from '@/server/process/container.ts';
import { actorOfKey } from '@/server/process/key-holder.ts';
import { takeText } from '@/server/process/take-text.ts';

/**
 * Takes a text that a program made, Markdown or JSON, as the new text of an entry's field: the whole
 * of it, or nothing with what is wrong and where.
 */
export async function POST(request: Request): Promise<Response> {
  const process = container();
  const actor =
    actorOfKey(process.keys, request.headers) ??
    (await (await process.auth).actor(request.headers));
  if (!actor) return Response.json({ message: 'Send a key: “bontel key”.' }, { status: 401 });
  const { searchParams } = new URL(request.url);
  const { status, body } = await takeText(process, actor, {
    entry: searchParams.get('entry') ?? '',
    field: searchParams.get('field') ?? '',
    type: request.headers.get('content-type') ?? '',
    source: await request.text(),
    job: randomUUID(),
  });
  return Response.json(body, { status });
}
