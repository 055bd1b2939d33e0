import { Suspense, type ReactNode } from 'react';
import { connection } from 'next/server';
import { container } from '@/server/process/container.ts';
import { rightsOf } from '@/server/permit.ts';
import { signedIn } from '../session.ts';
import { Shell } from '@/ui/builder/shell/shell.tsx';

export default async function Screens({ children }: { children: ReactNode }) {
  await connection();
  const actor = await signedIn();
  const now = nowMs();
  const detail = await container().reader.ask('shellDetail', actor, now);
  return (
    <Suspense>
      <Shell {...detail} person={actor.name} rights={rightsOf(actor)} now={now}>
        {children}
      </Shell>
    </Suspense>
  );
}

function nowMs(): number {
  return Date.now();
}
