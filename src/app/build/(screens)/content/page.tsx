import { ContentScreen } from '@/ui/builder/content/content-screen.tsx';
import { contentTable } from '@/server/queries/content.ts';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Content' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { actor, view, clock, search } = await openScreen(searchParams);
  const filters = { type: search.type || undefined, search: search.search || undefined, state: search.state || undefined };
  return <ContentScreen table={contentTable(view, actor, clock.at, filters)} clock={clock} filters={filters} />;
}
