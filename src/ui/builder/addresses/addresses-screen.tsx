'use client';

import type { AddressRows } from '@/server/queries/addresses.ts';
import type { AddressClashes } from '@/server/queries/address-clashes.ts';
import type { AddressBranch } from '@/server/queries/address-tree.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { LostLine } from '@/server/queries/lost-paths.ts';
import type { TriedAddress } from '@/server/queries/try-address.ts';
import { Tabs } from '@/ui/primitives/tabs.tsx';
import { counted, instantWords } from '../format.ts';
import { Panes } from '../panes.tsx';
import { useAddressBar } from '../use-address-bar.ts';
import { type AddressParameters, addressesHref } from './address-parameters.ts';
import { ClashLines } from './clash-lines.tsx';
import { LostLines } from './lost-lines.tsx';
import { PathTable } from './path-table.tsx';
import { PathTree } from './path-tree.tsx';
import { RedirectLines } from './redirect-lines.tsx';
import type { RedirectShown } from './redirect-shown.ts';
import { TryAddress } from './try-address.tsx';

interface Props {
  table: AddressRows;
  tree: AddressBranch;
  clashes: AddressClashes;
  redirects: RedirectShown[];
  lost: { lines: LostLine[]; total: number };
  types: readonly { key: string; label: string }[];
  languages: readonly { id: string; label: string }[];
  shown: AddressParameters;
  answer: TriedAddress | null;
  clock: Clock;
}

/** Every path as of the clock, redirects, clashes; any address can be tried. */
export function AddressesScreen(props: Props) {
  const { table, tree, clashes, redirects, lost, types, languages, shown, answer, clock } = props;
  const [asked, show] = useAddressBar(shown, addressesHref);
  const { page, list } = table.counts;
  const when =
    clock.tense === 'now' ? 'now' : `at ${instantWords(clock.at, clock.zone, clock.now)}`;
  const language = languages.find(({ id }) => id === shown.language);
  const where = languages.length === 0 ? '' : ` in ${language?.label ?? 'the site’s language'}`;
  const tabs = [
    {
      key: 'paths',
      label: 'Paths',
      content: <PathTable {...{ table, types, languages, shown, asked, clock, show }} />,
    },
    { key: 'tree', label: 'Tree', content: <PathTree {...{ tree, clock, show }} /> },
    {
      key: 'redirects',
      label: `Redirects (${redirects.length})`,
      content: <RedirectLines {...{ redirects, shown, clock, show }} />,
    },
    {
      key: 'lost',
      label: `Asked for in vain (${lost.total})`,
      content: <LostLines {...{ lost, clock, show }} />,
    },
    {
      key: 'clashes',
      label: `Clashes (${clashes.refusedTotal + clashes.numberedTotal})`,
      content: <ClashLines {...{ clashes, clock }} />,
    },
  ];
  return (
    <Panes
      problem={clock.problem}
      title="Addresses"
      lead={`${counted(page + list, 'page')}${where} ${when}`}
      settings={
        <div className="-mx-6 flex h-[calc(100dvh-210px)] min-h-[360px] flex-col">
          <Tabs
            label="Addresses"
            tabs={tabs}
            value={shown.tab === '' ? 'paths' : shown.tab}
            onChange={(tab) => show({ tab: tab === 'paths' ? '' : tab })}
          />
        </div>
      }
      outcome={<TryAddress key={shown.try} {...{ answer, clock, show }} />}
    />
  );
}
