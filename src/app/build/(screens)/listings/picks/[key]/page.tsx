import { notFound } from 'next/navigation';
import { lookingOf } from '@/ui/builder/looking.ts';
import { PicksScreen } from '@/ui/builder/picks/picks-screen.tsx';
import { type SearchParams, openScreen } from '../../../../screen.ts';

export const metadata = { title: 'Picks' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ key: string }>;
  searchParams: SearchParams;
}) {
  const { clock, ask } = await openScreen(searchParams);
  const { key } = await params;
  const detail = await ask('picksDetail', key, lookingOf(clock));
  if (!detail) notFound();
  return <PicksScreen key={detail.spec.id} detail={detail} clock={clock} />;
}
