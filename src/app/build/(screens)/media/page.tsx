import { mediaFilters } from '@/core/content/media-filters.ts';
import { MediaScreen } from '@/ui/builder/media/media-screen.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Media' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, search, ask } = await openScreen(searchParams);
  const filters = mediaFilters.parse({});
  const found = await ask('mediaFound', {
    at: clock.tense === 'past' ? clock.at : null,
    from: 0,
    filters,
  });
  return (
    <MediaScreen found={found} clock={clock} filters={filters} medium={search.medium ?? null} />
  );
}
