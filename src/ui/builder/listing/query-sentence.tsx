'use client';

import type { ConditionSpec, FilterSpec, SortSpec } from '@/core/design/listing-spec.ts';
import type { ListingColumn, ListingDetail } from '@/server/queries/listing.ts';
import { ConditionLine } from './condition-line.tsx';

type Spec = ListingDetail['spec'];
type Group = 'all' | 'any' | 'none';

/** The query, read as a sentence whose parts are controls. */
export function QuerySentence({
  spec,
  detail,
  readOnly,
  onChange,
}: {
  spec: Spec;
  detail: ListingDetail;
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}) {
  const where: FilterSpec =
    spec.where === undefined
      ? { all: [] }
      : 'field' in spec.where
        ? { all: [spec.where] }
        : spec.where;
  const setWhere = (filter: FilterSpec): void => {
    const empty = !('field' in filter) && Object.values(filter)[0]!.length === 0;
    const { where: _, ...rest } = spec;
    onChange((empty ? rest : { ...spec, where: filter }) as Spec);
  };
  return (
    <fieldset disabled={readOnly} className="flex flex-col gap-2 leading-8">
      <p>
        <strong>{detail.typeLabel}</strong> that are live
        {Object.values(where)[0]!.length > 0 ? ', and for which' : ''}
      </p>
      <GroupLines filter={where} columns={detail.columns} depth={0} onChange={setWhere} />
      <SortLines
        sort={spec.sort}
        columns={detail.columns.filter((c) => c.sortable)}
        onChange={(sort) => onChange({ ...spec, sort })}
      />
      <p className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          <input
            type="number"
            min={1}
            max={500}
            aria-label="Entries to a page"
            className="control !w-20 text-right"
            value={spec.pageSize}
            onChange={(e) =>
              onChange({
                ...spec,
                pageSize: Math.max(1, Math.min(500, Number(e.target.value) || 1)),
              })
            }
          />
          to a page; drawn as
        </label>
        <select
          aria-label="Card"
          className="control !w-48"
          value={spec.card ?? ''}
          onChange={(e) =>
            onChange(
              e.target.value === ''
                ? (withoutCard(spec) as Spec)
                : { ...spec, card: e.target.value },
            )
          }
        >
          <option value="">the type’s own card</option>
          {detail.cards.map((c) => (
            <option key={c.key} value={c.key}>
              {c.label}
            </option>
          ))}
        </select>
        .
      </p>
    </fieldset>
  );
}

function withoutCard({ card: _, ...rest }: Spec): Omit<Spec, 'card'> {
  return rest;
}

function GroupLines({
  filter,
  columns,
  depth,
  onChange,
  onRemove,
}: {
  filter: FilterSpec;
  columns: ListingColumn[];
  depth: number;
  onChange: (filter: FilterSpec) => void;
  onRemove?: () => void;
}) {
  const [kind, members] = Object.entries(filter)[0] as [Group, FilterSpec[]];
  const put = (next: FilterSpec[]): void => onChange({ [kind]: next } as FilterSpec);
  const replace = (i: number, next: FilterSpec | null): void =>
    put(members.flatMap((m, n) => (n === i ? (next === null ? [] : [next]) : [m])));
  const first = columns[0]!;
  const fresh: ConditionSpec = { field: first.name, op: 'not-blank' };
  return (
    <div className="border-l-2 border-rule pl-3">
      <div className="flex items-center gap-2">
        <select
          aria-label="How conditions combine"
          className="control !w-28"
          value={kind}
          onChange={(e) => onChange({ [e.target.value]: members } as unknown as FilterSpec)}
        >
          <option value="all">All of</option>
          <option value="any">Any of</option>
          <option value="none">None of</option>
        </select>
        {onRemove && (
          <button type="button" className="button-quiet" onClick={onRemove}>
            Remove group
          </button>
        )}
      </div>
      <ul>
        {members.map((member, i) => (
          <li key={i} className="py-1">
            {'field' in member ? (
              <ConditionLine
                condition={member}
                columns={columns}
                onChange={(next) => replace(i, next)}
                onRemove={() => replace(i, null)}
              />
            ) : (
              <GroupLines
                filter={member}
                columns={columns}
                depth={depth + 1}
                onChange={(next) => replace(i, next)}
                onRemove={() => replace(i, null)}
              />
            )}
          </li>
        ))}
      </ul>
      <button type="button" className="button-quiet" onClick={() => put([...members, fresh])}>
        Add a condition
      </button>
      {depth < 2 && (
        <button
          type="button"
          className="button-quiet"
          onClick={() => put([...members, { any: [fresh] }])}
        >
          Add a group
        </button>
      )}
    </div>
  );
}

function SortLines({
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
  return (
    <div>
      {sort.map((key, i) => (
        <p key={i} className="flex flex-wrap items-center gap-2 py-0.5">
          {i === 0 ? 'ordered by' : 'then by'}
          <select
            aria-label="Sort by"
            className="control !w-36"
            value={key.field}
            onChange={(e) => replace(i, { field: e.target.value })}
          >
            {columns.map((c) => (
              <option key={c.name} value={c.name}>
                {c.label}
              </option>
            ))}
          </select>
          <select
            aria-label="Direction"
            className="control !w-32"
            value={key.direction}
            onChange={(e) => replace(i, { direction: e.target.value as SortSpec['direction'] })}
          >
            <option value="ascending">least first</option>
            <option value="descending">greatest first</option>
          </select>
          <select
            aria-label="Where blanks go"
            className="control !w-28"
            value={key.blanks}
            onChange={(e) => replace(i, { blanks: e.target.value as SortSpec['blanks'] })}
          >
            <option value="last">blanks last</option>
            <option value="first">blanks first</option>
          </select>
          <button
            type="button"
            className="button-quiet"
            aria-label="Remove this sort key"
            onClick={() => replace(i, null)}
          >
            Remove
          </button>
        </p>
      ))}
      <p className="flex items-center gap-1 text-muted">
        {sort.length === 0 ? 'oldest first;' : 'then oldest first;'}
        <button
          type="button"
          className="button-quiet"
          onClick={() =>
            onChange([...sort, { field: columns[0]!.name, direction: 'ascending', blanks: 'last' }])
          }
        >
          Add a sort key
        </button>
      </p>
    </div>
  );
}
