import { notFound } from 'next/navigation';
import { lookingOf } from '@/ui/builder/looking.ts';
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
  const looking = lookingOf(clock);
  const detail = await ask('typeDetail', key, looking);
  if (!detail) notFound();
  const specimen = detail.specimens[0]?.id ?? null;
  const outcome = (await ask('typeOutcome', { id: detail.spec.id, steps: [], specimen }, looking))!;
  const { field, entry } = await searchParams;
  const opened = typeof field === 'string' ? field : null;
  const from = typeof entry === 'string' && entry !== '' ? entry.slice(0, 200) : null;
  return <TypeScreen key={key} {...{ detail, outcome, specimen, opened, from, clock }} />;
}
