import { notFound } from 'next/navigation';
import { StarterScreen } from '@/ui/builder/starters/starter-screen.tsx';
import { type SearchParams, openScreen } from '../../../../screen.ts';
import { openStarter } from '../open-starter.ts';

export const metadata = { title: 'Starter' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: SearchParams;
}) {
  const id = decodeURIComponent((await params).id);
  const opened = await openStarter(await openScreen(searchParams), { id });
  if (!opened) notFound();
  return <StarterScreen key={id} {...opened} />;
}
