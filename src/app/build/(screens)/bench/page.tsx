import { notFound } from 'next/navigation';
import { BenchScreen } from '@/ui/builder/bench/bench-screen.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Bench' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, ask, search } = await openScreen(searchParams);
  const [detail, page] = await Promise.all([
    ask('benchDetail', clock.at),
    ask('tryAddress', search.page ?? '/', clock.at, 'bench'),
  ]);
  if (!detail) notFound();
  return <BenchScreen detail={detail} page={page} clock={clock} />;
}
