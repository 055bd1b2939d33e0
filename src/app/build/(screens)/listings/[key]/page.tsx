import { notFound } from 'next/navigation';
import { ListingScreen } from '@/ui/builder/listing/listing-screen.tsx';
import { lookingOf } from '@/ui/builder/looking.ts';
import { type SearchParams, openScreen } from '../../../screen.ts';

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ key: string }>;
  searchParams: SearchParams;
}) {
  const { clock, ask } = await openScreen(searchParams);
  const { key } = await params;
  const looking = lookingOf(clock);
  const detail = await ask('listingDetail', key, looking);
  if (!detail) notFound();
  const outcome = (await ask(
    'listingOutcome',
    { id: detail.spec.id, steps: [], find: '' },
    looking,
  ))!;
  const { pin: id, called: name } = await searchParams;
  const pin = typeof id === 'string' && typeof name === 'string' ? { id, name } : null;
  return <ListingScreen key={key} {...{ detail, outcome, clock, pin }} />;
}
