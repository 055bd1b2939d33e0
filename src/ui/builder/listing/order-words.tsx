'use client';

import type { SortSpec } from '@/core/design/listing-spec.ts';
import type { ListingColumn } from '@/server/queries/listing.ts';
import { Word } from '@/ui/primitives/word.tsx';

/** Both directions of an order in words, by the family of what is ordered by. */
const DIRECTIONS: Record<string, [ascending: string, descending: string]> = {
  text: ['A to Z', 'Z to A'],
  number: ['least first', 'most first'],
  day: ['soonest first', 'latest first'],
  instant: ['oldest first', 'newest first'],
  choice: ['in the order of its options', 'in reverse order of its options'],
  yesno: ['no first', 'yes first'],
};
/** Both directions of the order in which conditions name entries. */
const PLACES: [string, string] = ['first to last', 'last to first'];
const LEAVE_OUT = '(leave this out)';
const MOST_KEYS = 8;

/** The order as words of the sentence. */
export function OrderWords({
  sort,
  columns,
  onChange,
}: {
  sort: SortSpec[];
  columns: ListingColumn[];
  onChange: (sort: SortSpec[]) => void;
}) {
  const replace = (i: number, change: Partial<SortSpec> | null): void =>
    onChange(
      sort.flatMap((s, n) => (n === i ? (change === null ? [] : [{ ...s, ...change }]) : [s])),
    );
  const add = (field: string): void => {
    if (field !== '') onChange([...sort, { field, direction: 'ascending', blanks: 'last' }]);
  };
  return (
    <>
      {sort.map((key, i) => (
        <span key={i}>
          {i === 0 ? 'by ' : ', then by '}
          <KeyWords sortKey={key} columns={columns} onChange={(change) => replace(i, change)} />
        </span>
      ))}
      {sort.length === 0 ? 'oldest first ' : ' '}
      {sort.length < MOST_KEYS && columns.length > 0 && (
        <Word
          label="Add an order"
          quiet
          value=""
          options={[
            { value: '', label: sort.length === 0 ? 'or by …' : 'then by …' },
            ...columns.map((c) => ({ value: c.name, label: c.label })),
          ]}
          onChange={add}
        />
      )}
    </>
  );
}

function KeyWords({
  sortKey,
  columns,
  onChange,
}: {
  sortKey: SortSpec;
  columns: ListingColumn[];
  onChange: (change: Partial<SortSpec> | null) => void;
}) {
  const column = columns.find((c) => c.name === sortKey.field);
  const isPlace = sortKey.field === 'entry.place';
  const [up, down] = isPlace ? PLACES : (DIRECTIONS[column?.family ?? 'text'] ?? DIRECTIONS.text!);
  return (
    <>
      <Word
        label="Sort by"
        value={sortKey.field}
        options={[
          ...columns.map((c) => ({ value: c.name, label: c.label })),
          { value: LEAVE_OUT, label: LEAVE_OUT },
        ]}
        onChange={(field) => onChange(field === LEAVE_OUT ? null : { field })}
      />{' '}
      <Word
        label="Direction"
        value={sortKey.direction}
        options={[
          { value: 'ascending', label: up },
          { value: 'descending', label: down },
        ]}
        onChange={(direction) => onChange({ direction: direction as SortSpec['direction'] })}
      />
      {', '}
      <Word
        label="Where blanks go"
        value={sortKey.blanks}
        options={[
          { value: 'last', label: 'blanks last' },
          { value: 'first', label: 'blanks first' },
        ]}
        onChange={(blanks) => onChange({ blanks: blanks as SortSpec['blanks'] })}
      />
    </>
  );
}
