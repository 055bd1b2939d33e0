import { container } from '@/server/process/container.ts';

/**
 * What unsaved values, or an unsaved setting, would make of the site as of an instant. Writes
 * nothing.
 */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ what: string }> },
): Promise<Response> {
  const { auth, reader, comparer } = container();
  const actor = await (await auth).actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  const { what } = await params;
  const thread = what === 'reach' ? comparer : reader;
  const { status, body } = await thread.outcome(what, actor, await request.text());
  return Response.json(body, { status });
}
