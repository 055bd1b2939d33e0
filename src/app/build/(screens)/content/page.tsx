import { readFilters } from '@/core/content/filters.ts';
import { ContentScreen } from '@/ui/builder/content/content-screen.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Content' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, search, ask } = await openScreen(searchParams);
  const filters = readFilters(search);
  return (
    <ContentScreen
      table={await ask('contentTable', clock.at, filters)}
      clock={clock}
      filters={filters}
      deleted={search.deleted ? { id: search.deleted, name: search.name ?? search.deleted } : null}
    />
  );
}
