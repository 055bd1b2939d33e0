import { AddressesScreen } from '@/ui/builder/addresses/addresses-screen.tsx';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Addresses' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, search, ask } = await openScreen(searchParams);
  const words = search.search ?? '';
  const [table, answer] = await Promise.all([
    ask('addressTable', { at: clock.at, seeing: clock.seeing }, words),
    search.try === undefined ? null : ask('tryAddress', search.try, clock.at, clock.seeing),
  ]);
  return <AddressesScreen table={table} search={words} answer={answer} clock={clock} />;
}
