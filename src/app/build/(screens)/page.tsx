import { Today } from '@/ui/builder/today/today.tsx';
import { todayDetail } from '@/server/queries/today.ts';
import { type SearchParams, openScreen } from '../screen.ts';

export const metadata = { title: 'Today' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { actor, view, clock } = await openScreen(searchParams);
  return <Today detail={todayDetail(view, actor, clock.at)} clock={clock} />;
}
