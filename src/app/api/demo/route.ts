import { NotPermitted, SITE, permit } from '@/server/permit.ts';
import { container } from '@/server/process/container.ts';

/** Loads the demo where there is no site yet: nothing that is there is ever replaced by it. */
export async function POST(request: Request): Promise<Response> {
  const { auth, demo, view } = container();
  const actor = await (await auth).actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  try {
    permit(actor, 'load', SITE);
  } catch (error) {
    if (error instanceof NotPermitted)
      return Response.json({ message: error.message }, { status: 403 });
    throw error;
  }
  if (view.at(Date.now()))
    return Response.json(
      { message: 'There is a site already; the demo would take its place.' },
      { status: 409 },
    );
  return Response.json(await demo.load());
}
