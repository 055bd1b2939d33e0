import { z } from 'zod';
import { container } from '@/server/process/container.ts';
import { rightsOf } from '@/server/permit.ts';

const input = z.object({ path: z.string().max(300) });

/** Has nobody be told any more of a path that was asked for in vain, until it is asked for again. */
export async function POST(request: Request): Promise<Response> {
  const { auth, traffic } = container();
  const actor = await (await auth).actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  if (!rightsOf(actor).includes('change-design'))
    return Response.json({ message: 'You may not change the design.' }, { status: 403 });
  const read = input.safeParse(await request.json().catch(() => null));
  if (!read.success) return Response.json({ message: 'No path was given.' }, { status: 400 });
  traffic.forget(read.data.path);
  return Response.json({ ok: true, value: null });
}
