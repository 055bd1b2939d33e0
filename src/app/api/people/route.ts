import { NotPermitted } from '@/server/permit.ts';
import { people as everybody } from '@/server/queries/people.ts';
import { changePeople } from '@/server/process/accounts.ts';
import { container } from '@/server/process/container.ts';

/** Lets people in, changes what they may do, or lets them in no more. */
export async function POST(request: Request): Promise<Response> {
  const { people, view, auth: ready } = container();
  const auth = await ready;
  const actor = await auth.actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  const known = (): string[] => everybody(view, actor).map(({ id }) => id);
  const input: unknown = await request.json().catch(() => null);
  try {
    return Response.json(await changePeople({ people, auth, known }, actor, input));
  } catch (error) {
    if (!(error instanceof NotPermitted)) throw error;
    return Response.json({ message: error.message }, { status: 403 });
  }
}
