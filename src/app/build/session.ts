import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { container } from '@/server/process/container.ts';
import type { Actor } from '@/server/permit.ts';

/** Who is signed in; visitors are sent to the sign-in page. */
export async function signedIn(): Promise<Actor> {
  const auth = await container().auth;
  const actor = await auth.actor(await headers());
  if (!actor) redirect('/build/sign-in');
  return actor;
}
