import { notFound } from 'next/navigation';
import { StarterScreen } from '@/ui/builder/starters/starter-screen.tsx';
import { type SearchParams, openScreen } from '../../../../../screen.ts';
import { openStarter } from '../../open-starter.ts';

export const metadata = { title: 'New starter' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ type: string }>;
  searchParams: SearchParams;
}) {
  const { type } = await params;
  const opened = await openStarter(await openScreen(searchParams), { type });
  if (!opened) notFound();
  return <StarterScreen {...opened} />;
}
