import { BenchScreen } from '@/ui/builder/bench/bench-screen.tsx';
import { NoSite } from '@/ui/builder/start/no-site.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Bench' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, ask, search } = await openScreen(searchParams);
  const [detail, page] = await Promise.all([
    ask('benchDetail', clock.at),
    ask('tryAddress', search.page ?? '/', clock.at, 'bench'),
  ]);
  if (!detail) return <NoSite />;
  return <BenchScreen detail={detail} page={page} clock={clock} />;
}
