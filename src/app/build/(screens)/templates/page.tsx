import { lookingOf } from '@/ui/builder/looking.ts';
import { NoSite } from '@/ui/builder/start/no-site.tsx';
import { TemplatesScreen } from '@/ui/builder/templates/templates-screen.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Templates' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, ask } = await openScreen(searchParams);
  const detail = await ask('templatesDetail', lookingOf(clock));
  return detail ? <TemplatesScreen detail={detail} clock={clock} /> : <NoSite />;
}
