import { container } from '@/server/process/container.ts';
import type { AddressKind } from '@/server/queries/addresses.ts';
import { addressParameters } from '@/ui/builder/addresses/address-parameters.ts';
import { AddressesScreen } from '@/ui/builder/addresses/addresses-screen.tsx';
import { lookingOf } from '@/ui/builder/looking.ts';
import { type SearchParams, openScreen } from '../../screen.ts';

export const metadata = { title: 'Addresses' };

/** So many paths that were asked for in vain are looked at: each is compared with all there are. */
const LOST_SHOWN = 12;
const KINDS: readonly string[] = ['list', 'page', 'redirect', 'coming', 'former'];
const NO_TREE = { nodes: [], total: 0 };
const NEVER = { days: [], total: 0 };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { clock, design, search, ask } = await openScreen(searchParams);
  const shown = addressParameters(search);
  const looking = lookingOf(clock);
  const { traffic } = container();
  const { paths, total } = traffic.lostLately(LOST_SHOWN);
  const [table, tree, clashes, lines, answer] = await Promise.all([
    ask('addressRows', looking, {
      search: shown.search,
      kind: KINDS.includes(shown.kind) ? (shown.kind as AddressKind) : null,
      type: shown.type || null,
      language: shown.language || null,
    }),
    shown.tab === 'tree' ? ask('addressTree', looking, '') : NO_TREE,
    ask('addressClashes'),
    shown.tab === 'lost' ? ask('lostPaths', paths, clock.at) : [],
    shown.try === '' ? null : ask('tryAddress', shown.try, clock.at, clock.seeing),
  ]);
  const hits = traffic.hits();
  const redirects = (design?.redirects ?? []).map((redirect) => ({
    ...{ ...redirect, id: redirect.id ?? '' },
    hits: hits.get(redirect.id ?? '') ?? NEVER,
  }));
  const types = (design?.types ?? []).map(({ key, label }) => ({ key, label }));
  const languages = (design?.languages ?? []).map(({ id, label }) => ({ id, label }));
  return (
    <AddressesScreen
      {...{ table, tree, clashes, redirects, types, languages, shown, answer, clock }}
      lost={{ lines, total }}
    />
  );
}
