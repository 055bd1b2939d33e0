import { StarterScreen } from '@/ui/builder/starters/starter-screen.tsx';
import { type SearchParams, openScreen } from '../../../../screen.ts';
import { EntryPage } from '../../entry-page.tsx';
import { openStarter } from '../open-starter.ts';

export const metadata = { title: 'Starter' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: SearchParams;
}) {
  const id = decodeURIComponent((await params).id);
  const screen = await openScreen(searchParams);
  const opened = await openStarter(screen, { id });
  // Entries of a type that is called so have such ids, too.
  if (!opened) return <EntryPage screen={screen} id={`starters/${id}`} />;
  return <StarterScreen key={id} {...opened} />;
}
