import { notFound } from 'next/navigation';
import { ListingScreen } from '@/ui/builder/listing/listing-screen.tsx';
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
  const detail = await ask('listingDetail', key, clock.at);
  if (!detail) notFound();
  const outcome = (await ask(
    'listingOutcome',
    { key, set: {}, find: '' },
    clock.at,
    clock.seeing,
  ))!;
  return <ListingScreen key={key} detail={detail} outcome={outcome} clock={clock} />;
}
