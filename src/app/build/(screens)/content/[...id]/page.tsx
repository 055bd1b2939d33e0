import { notFound } from 'next/navigation';
import { EntryScreen } from '@/ui/builder/entry/entry-screen.tsx';
import { GoneScreen } from '@/ui/builder/entry/gone-screen.tsx';
import { type SearchParams, openScreen } from '../../../screen.ts';

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string[] }>;
  searchParams: SearchParams;
}) {
  const { clock, ask } = await openScreen(searchParams);
  const id = (await params).id.map(decodeURIComponent).join('/');
  const detail = await ask('entryDetail', id, clock.at, clock.now);
  if (!detail) {
    const gone = await ask('goneEntry', id, clock.at);
    if (!gone) notFound();
    return <GoneScreen gone={gone} clock={clock} />;
  }
  const outcome = (await ask(
    'entryOutcome',
    { id, type: detail.type.id, values: null },
    clock.at,
    clock.seeing,
  ))!;
  return <EntryScreen key={id} detail={detail} outcome={outcome} clock={clock} />;
}
