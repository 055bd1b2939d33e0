import { z } from 'zod';
import { container } from '@/server/process/container.ts';

const body = z.object({ token: z.string().min(1).max(200) });

/** Exchanges a one-time token for a session cookie. */
export async function POST(request: Request): Promise<Response> {
  const parsed = body.safeParse(await request.json().catch(() => null));
  if (!parsed.success)
    return Response.json({ message: 'This is not a sign-in link.' }, { status: 400 });
  return (await container().auth).consume(
    parsed.data.token,
    request.headers.get('x-bontel-ip') ?? '',
  );
}

/** Signs out. */
export async function DELETE(request: Request): Promise<Response> {
  return (await container().auth).signOut(request.headers);
}
