import { Suspense, type ReactNode } from 'react';
import { connection } from 'next/server';
import { container } from '@/server/container.ts';
import { changeTicks } from '@/server/queries/clock.ts';
import { unpublishedCount } from '@/server/queries/today.ts';
import { signedIn } from '../session.ts';
import { Shell } from '@/ui/builder/shell/shell.tsx';

const YEAR_MS = 366 * 86_400_000;

export default async function Screens({ children }: { children: ReactNode }) {
  await connection();
  const actor = await signedIn();
  const { view } = container();
  const now = nowMs();
  const site = view.at(now)?.site.design.site;
  return (
    <Suspense>
      <Shell siteName={site?.name ?? 'No site yet'} zone={site?.zone ?? 'UTC'} person={actor.name} now={now} unpublished={site ? unpublishedCount(view, now) : 0} ticks={changeTicks(view, now - YEAR_MS, now + YEAR_MS)}>
        {children}
      </Shell>
    </Suspense>
  );
}

function nowMs(): number {
  return Date.now();
}
