import { notFound } from 'next/navigation';
import { lookingOf } from '@/ui/builder/looking.ts';
import { SubjectsScreen } from '@/ui/builder/subjects/subjects-screen.tsx';
import { type SearchParams, openScreen } from '../../../../screen.ts';

export const metadata = { title: 'Subjects' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ set: string }>;
  searchParams: SearchParams;
}) {
  const { clock, ask } = await openScreen(searchParams);
  const { set } = await params;
  const { subject } = await searchParams;
  const opened = typeof subject === 'string' ? subject : null;
  const detail = await ask('subjectsDetail', set, lookingOf(clock), opened);
  if (!detail) notFound();
  return <SubjectsScreen key={set} detail={detail} subject={opened} clock={clock} />;
}
