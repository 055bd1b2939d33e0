import { AddressesScreen } from '@/ui/builder/addresses/addresses-screen.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Addresses' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { view, clock, search } = await openScreen(searchParams);
  const pages = view.pages(clock.at) ?? [];
  const former = view.formerPaths(clock.at).map(({ path, page }) => ({ path, status: page.status, location: page.headers.location ?? null }));
  const traced = search.try === undefined ? null : view.trace(search.try, clock.at);
  const answer = traced && { path: search.try!, steps: traced.steps, status: traced.page.status, location: traced.page.headers.location ?? null, html: traced.page.kind === 'file' ? null : traced.page.body };
  return <AddressesScreen pages={pages.slice(0, 2000)} total={pages.length} former={former.slice(0, 500)} answer={answer} clock={clock} />;
}
