import type { ReactNode } from 'react';
import { Table, type TableColumn } from '@/ui/primitives/table.tsx';
import { ClockLink } from './shell/clock-link.tsx';

/** A part of the design, as a line of its list. */
export interface PartRow {
  href: string;
  name: string;
  what: string;
  /** Where it stands; null where it has no address of its own. */
  address: string | null;
  size: string;
}

interface Props {
  title: string;
  intro: string;
  /** Heads of name and description. */
  heads: [name: string, what: string];
  rows: PartRow[];
  /** Said in place of an address. */
  without: string;
  empty: string;
  /** What stands below the table. */
  children?: ReactNode;
}

/** A table of the design's parts, each leading to its screen. */
export function PartList({ title, intro, heads, rows, without, empty, children }: Props) {
  const columns: TableColumn<PartRow>[] = [
    {
      key: 'name',
      head: heads[0],
      className: 'font-[550] whitespace-nowrap',
      cell: ({ href, name }) => (
        <ClockLink href={href} className="text-ink hover:underline">
          {name}
        </ClockLink>
      ),
    },
    {
      key: 'what',
      head: heads[1],
      headClassName: 'wide-cell',
      className: 'wide-cell text-muted',
      cell: ({ what }) => what,
    },
    {
      key: 'address',
      head: 'Address',
      cell: ({ address }) =>
        address === null ? (
          <span className="text-muted">{without}</span>
        ) : (
          <span className="font-mono text-note break-all">{address}</span>
        ),
    },
    {
      key: 'size',
      head: <span className="sr-only">Size</span>,
      className: 'text-right whitespace-nowrap text-muted',
      cell: ({ size }) => size,
    },
  ];
  return (
    <main data-area tabIndex={-1} className="min-h-0 flex-1 overflow-auto px-6 py-4">
      <h1>{title}</h1>
      <p className="mb-3 text-muted">{intro}</p>
      <Table label={title} columns={columns} rows={rows} keyOf={({ href }) => href} />
      {rows.length === 0 && <p className="border-t border-rule py-3 text-muted">{empty}</p>}
      {children}
    </main>
  );
}
