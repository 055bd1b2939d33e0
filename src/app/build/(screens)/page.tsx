import { Today } from '@/ui/builder/today/today.tsx';
import { type SearchParams, openScreen } from '../screen.ts';

export const metadata = { title: 'Today' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, ask } = await openScreen(searchParams);
  return <Today detail={await ask('todayDetail', clock.at)} clock={clock} />;
}
