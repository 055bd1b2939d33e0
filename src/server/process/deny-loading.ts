import { NotPermitted, SITE, permit } from '../permit.ts';
import { container } from './container.ts';

/** The answer to whoever may not load sites; null for whoever may. */
export async function denyLoading(request: Request): Promise<Response | null> {
  const actor = await (await container().auth).actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  try {
    permit(actor, 'load', SITE);
    return null;
  } catch (error) {
    if (!(error instanceof NotPermitted)) throw error;
    return Response.json({ message: error.message }, { status: 403 });
  }
}
