import { lookingOf } from '@/ui/builder/looking.ts';
import { NoSite } from '@/ui/builder/start/no-site.tsx';
import { TypesScreen } from '@/ui/builder/types/types-screen.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Types' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, ask } = await openScreen(searchParams);
  const detail = await ask('typesDetail', lookingOf(clock));
  return detail ? <TypesScreen detail={detail} clock={clock} /> : <NoSite />;
}
