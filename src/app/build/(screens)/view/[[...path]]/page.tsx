import { notFound } from 'next/navigation';
import { lookingOf } from '@/ui/builder/looking.ts';
import { ViewScreen } from '@/ui/builder/view/view-screen.tsx';
import { type SearchParams, openScreen } from '../../../screen.ts';

export const metadata = { title: 'Page' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ path?: string[] }>;
  searchParams: SearchParams;
}) {
  const { clock, ask } = await openScreen(searchParams);
  const { path = [] } = await params;
  const { query } = await searchParams;
  const asked = typeof query === 'string' ? `?${query}` : '';
  const page = await ask('viewedPage', `/${path.join('/')}${asked}`, lookingOf(clock));
  if (!page) notFound();
  return <ViewScreen page={page} clock={clock} />;
}
