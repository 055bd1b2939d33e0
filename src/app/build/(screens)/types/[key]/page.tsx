import { notFound } from 'next/navigation';
import { TypeScreen } from '@/ui/builder/type/type-screen.tsx';
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
  const detail = await ask('typeDetail', key, clock.at);
  if (!detail) notFound();
  const specimen = detail.specimens[0]?.id ?? null;
  const outcome = (await ask('typeOutcome', { key, set: {}, specimen }, clock.at, clock.seeing))!;
  return (
    <TypeScreen key={key} detail={detail} outcome={outcome} specimen={specimen} clock={clock} />
  );
}
