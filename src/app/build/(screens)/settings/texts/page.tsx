import { lookingOf } from '@/ui/builder/looking.ts';
import { TextsScreen } from '@/ui/builder/settings/texts/texts-screen.tsx';
import { NoSite } from '@/ui/builder/start/no-site.tsx';
import { type SearchParams, openScreen } from '../../../screen.ts';

export const metadata = { title: 'Texts' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, ask } = await openScreen(searchParams);
  const detail = await ask('textsDetail', lookingOf(clock));
  return detail ? <TextsScreen detail={detail} clock={clock} /> : <NoSite />;
}
