import { NewListing } from '@/ui/builder/listing/new-listing.tsx';
import { lookingOf } from '@/ui/builder/looking.ts';
import { PicksTable } from '@/ui/builder/picks/picks-table.tsx';
import { PartList } from '@/ui/builder/part-list.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Listings' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { design, clock, ask } = await openScreen(searchParams);
  const picks = await ask('picksList', lookingOf(clock));
  const rows = (design?.listings ?? []).map((l) => ({
    href: `/build/listings/${l.key}`,
    name: l.label,
    what: design!.types.find((t) => t.key === l.type)?.plural ?? l.type,
    address: l.address ?? null,
    size: `${l.pageSize} to a page`,
  }));
  rows.sort((a, b) => a.name.localeCompare(b.name, 'en'));
  return (
    <PartList
      title="Listings"
      intro="Which entries, in what order, how many to a page, drawn as which card, and where."
      heads={['Listing', 'Of']}
      without="inside templates only"
      rows={rows}
      empty="No listings yet."
    >
      {design && (
        <NewListing
          listings={design.listings.map(({ id, key, address }) => ({ id, key, address }))}
          types={design.types.map(({ key, plural }) => ({ key, plural }))}
          language={design.site.language}
          clock={clock}
        />
      )}
      {design && <PicksTable lines={picks} language={design.site.language} clock={clock} />}
    </PartList>
  );
}
