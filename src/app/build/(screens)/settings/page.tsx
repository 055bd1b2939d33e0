import { lookingOf } from '@/ui/builder/looking.ts';
import { SettingsScreen } from '@/ui/builder/settings/settings-screen.tsx';
import { NoSite } from '@/ui/builder/start/no-site.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Settings' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, ask } = await openScreen(searchParams);
  const looking = lookingOf(clock);
  const [detail, outcome] = await Promise.all([
    ask('settingsDetail', looking),
    ask('settingsOutcome', { steps: [] }, looking),
  ]);
  if (!detail || !outcome) return <NoSite />;
  return <SettingsScreen detail={detail} outcome={outcome} clock={clock} />;
}
