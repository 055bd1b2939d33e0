import { notFound } from 'next/navigation';
import { lookingOf } from '@/ui/builder/looking.ts';
import { TemplateScreen } from '@/ui/builder/template/template-screen.tsx';
import { type SearchParams, openScreen } from '../../../screen.ts';

export const metadata = { title: 'Template' };

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
  const detail = await ask('templateDetail', key, looking);
  if (!detail) notFound();
  const specimen = detail.specimens[0]?.id ?? null;
  const input = { id: detail.spec.id, steps: [], specimen };
  const outcome = (await ask('templateOutcome', input, looking))!;
  return <TemplateScreen key={key} {...{ detail, outcome, specimen, clock }} />;
}
