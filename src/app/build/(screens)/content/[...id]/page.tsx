import { type SearchParams, openScreen } from '../../../screen.ts';
import { EntryPage } from '../entry-page.tsx';

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ id: string[] }>;
  searchParams: SearchParams;
}) {
  const screen = await openScreen(searchParams);
  const id = (await params).id.map(decodeURIComponent).join('/');
  return <EntryPage screen={screen} id={id} language={screen.search.language ?? null} />;
}
