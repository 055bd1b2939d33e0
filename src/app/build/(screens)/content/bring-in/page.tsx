import { BringInScreen } from '@/ui/builder/intake/bring-in-screen.tsx';
import { NoSite } from '@/ui/builder/start/no-site.tsx';
import { type SearchParams, openScreen } from '../../../screen.ts';

export const metadata = { title: 'Bring in' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, search, ask } = await openScreen(searchParams);
  const detail = await ask('sourcesDetail', clock.now);
  if (!detail) return <NoSite />;
  return <BringInScreen detail={detail} clock={clock} type={search.type ?? null} />;
}
