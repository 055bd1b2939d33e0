import { container } from '@/server/process/container.ts';

type Params = { params: Promise<{ id: string }> };

/** How far a write is that takes long; 404 where it is not under way. */
export async function GET(request: Request, { params }: Params): Promise<Response> {
  const { auth, long } = container();
  if (!(await (await auth).actor(request.headers))) return signIn();
  const job = long.job((await params).id);
  return job ? Response.json(job) : gone();
}

/** Cancels a write that takes long; nothing is changed then. */
export async function DELETE(request: Request, { params }: Params): Promise<Response> {
  const { auth, long } = container();
  if (!(await (await auth).actor(request.headers))) return signIn();
  return long.cancel((await params).id) ? Response.json({ cancelled: true }) : gone();
}

function signIn(): Response {
  return Response.json({ message: 'Sign in again.' }, { status: 401 });
}

function gone(): Response {
  return Response.json({ message: 'This is not under way.' }, { status: 404 });
}
