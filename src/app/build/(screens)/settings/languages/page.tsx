import { lookingOf } from '@/ui/builder/looking.ts';
import { LanguagesScreen } from '@/ui/builder/settings/languages/languages-screen.tsx';
import { NoSite } from '@/ui/builder/start/no-site.tsx';
import { type SearchParams, openScreen } from '../../../screen.ts';

export const metadata = { title: 'Languages' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, ask, search } = await openScreen(searchParams);
  const detail = await ask('languagesDetail', lookingOf(clock));
  if (!detail) return <NoSite />;
  return <LanguagesScreen detail={detail} clock={clock} open={search.open ?? null} />;
}
