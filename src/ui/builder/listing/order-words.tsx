'use client';

import type { SortSpec } from '@/core/design/listing-spec.ts';
import type { ListingColumn } from '@/server/queries/listing-columns.ts';
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
      sort.flatMap((s, n) => (n === i ? (change === null ? [] : [changed(s, change)]) : [s])),
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

function changed(key: SortSpec, change: Partial<SortSpec>): SortSpec {
  const { from, ...rest } = { ...key, ...change };
  return from === undefined ? rest : { ...rest, from };
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
  const { field, direction, from } = sortKey;
  if (field === CHANCE) return <FieldWord {...{ sortKey, columns, onChange }} />;
  const isPlace = field === 'entry.place';
  const [up, down] = isPlace ? PLACES : (DIRECTIONS[column?.family ?? 'text'] ?? DIRECTIONS.text!);
  const isDate = column?.family === 'day' || column?.family === 'instant';
  const setDirection = (value: string): void => {
    const [way, away] = value.split(' ');
    onChange({
      direction: way as SortSpec['direction'],
      from: away === undefined ? undefined : 'today',
    });
  };
  return (
    <>
      <FieldWord {...{ sortKey, columns, onChange }} />{' '}
      <Word
        label="Direction"
        value={from === undefined ? direction : `${direction} away`}
        options={[
          { value: 'ascending', label: up },
          { value: 'descending', label: down },
          ...(isDate ? AWAY : []),
        ]}
        onChange={setDirection}
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

const CHANCE = 'entry.chance';
/** Directions by how far dates are away. */
const AWAY = [
  { value: 'ascending away', label: 'nearest to today first' },
  { value: 'descending away', label: 'farthest from today first' },
];

function FieldWord({ sortKey, columns, onChange }: Parameters<typeof KeyWords>[0]) {
  const setField = (field: string): void => {
    if (field === LEAVE_OUT) return onChange(null);
    const family = columns.find((c) => c.name === field)?.family;
    const isDate = family === 'day' || family === 'instant';
    onChange({ field, ...(isDate ? {} : { from: undefined }) });
  };
  return (
    <Word
      label="Sort by"
      value={sortKey.field}
      options={[
        ...columns.map((c) => ({ value: c.name, label: c.label })),
        { value: LEAVE_OUT, label: LEAVE_OUT },
      ]}
      onChange={setField}
    />
  );
}
