import { lookingOf } from '@/ui/builder/looking.ts';
import { StyleScreen } from '@/ui/builder/settings/style/style-screen.tsx';
import { NoSite } from '@/ui/builder/start/no-site.tsx';
import { type SearchParams, openScreen } from '../../../screen.ts';

export const metadata = { title: 'Style' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, ask } = await openScreen(searchParams);
  const looking = lookingOf(clock);
  const detail = await ask('styleDetail', looking);
  const outcome = await ask('styleOutcome', { steps: [], page: '/' }, looking);
  return detail && outcome ? <StyleScreen {...{ detail, outcome, clock }} /> : <NoSite />;
}
