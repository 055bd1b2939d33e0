import type { VisitorSpec } from '@/core/design/listing-spec.ts';
import type { Issue } from '@/core/issue.ts';
import type { ListingDetail } from '@/server/queries/listing.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { Ticks } from '@/ui/primitives/ticks.tsx';
import { OrderWords } from './order-words.tsx';

type Spec = ListingDetail['spec'];

interface Props {
  spec: Spec;
  detail: ListingDetail;
  issues: readonly Issue[];
  readOnly: boolean;
  onChange: (spec: Spec) => void;
}

const NOTHING: VisitorSpec = { filters: [], search: [], orders: [] };
const MOST_ORDERS = 12;

/** What visitors do with the listing's pages: narrow, search and order them. */
export function VisitorLines({ spec, detail, issues, readOnly, onChange }: Props) {
  const { visitor = NOTHING, ...rest } = spec;
  const put = (change: Partial<VisitorSpec>): void => {
    const next = { ...visitor, ...change };
    const isNothing = Object.values(next).every((all) => all.length === 0);
    onChange((isNothing ? rest : { ...spec, visitor: next }) as Spec);
  };
  const narrowing = detail.columns.filter(({ narrows }) => narrows);
  const own = issues.filter(({ path = '' }) => path.includes('/visitor'));
  return (
    <div className="border-t border-rule pt-2">
      <Line label="Visitors narrow by" help="With how many entries have each value.">
        {narrowing.length === 0 ? (
          <p className="pt-1.5 text-muted">It has no choices, subjects or references.</p>
        ) : (
          <Ticks
            id="narrow"
            of={narrowing.map(({ name, label }) => ({ value: name, label }))}
            ticked={visitor.filters}
            readOnly={readOnly}
            onChange={(filters = []) => put({ filters })}
          />
        )}
      </Line>
      <Line label="Visitors search" help="Words of these fields, as they are public.">
        <Ticks
          id="search"
          of={detail.texts}
          ticked={visitor.search}
          readOnly={readOnly}
          onChange={(search = []) => put({ search })}
        />
      </Line>
      <Line label="They may order" help="Besides the order that the sentence gives.">
        <Orders
          {...{ detail, readOnly }}
          orders={visitor.orders}
          onChange={(o) => put({ orders: o })}
        />
      </Line>
      {own.map(({ message, fix }, i) => (
        <p key={i} className="mt-1 text-alarm">
          {message} <span className="text-muted">{fix}</span>
        </p>
      ))}
    </div>
  );
}

type Orders = VisitorSpec['orders'];

function Orders({
  orders,
  detail,
  readOnly,
  onChange,
}: {
  orders: Orders;
  detail: ListingDetail;
  readOnly: boolean;
  onChange: (orders: Orders) => void;
}) {
  const columns = detail.columns.filter((c) => c.sortable && c.name !== 'entry.place');
  const replace = (i: number, change: Partial<Orders[number]> | null): void =>
    onChange(
      orders.flatMap((o, n) => (n === i ? (change === null ? [] : [{ ...o, ...change }]) : [o])),
    );
  const add = (): void => {
    const taken = new Set(orders.map(({ key }) => key));
    const number = [...taken, ''].findIndex((_, i) => !taken.has(`order-${i + 1}`)) + 1;
    const first = columns.find(({ name }) => name === 'entry.published') ?? columns[0]!;
    const sort = [{ field: first.name, direction: 'descending', blanks: 'last' }] as const;
    onChange([...orders, { key: `order-${number}`, label: 'Newest first', sort: [...sort] }]);
  };
  return (
    <div className="flex flex-col gap-2">
      {orders.map(({ key, label, sort }, i) => (
        <div key={key} className="grid grid-cols-[1fr_auto] items-center gap-x-3">
          <input
            className="control"
            aria-label="What visitors read"
            value={label ?? ''}
            maxLength={80}
            readOnly={readOnly}
            onChange={(e) => replace(i, { label: e.target.value })}
          />
          {!readOnly && (
            <button
              type="button"
              className="word word-quiet"
              aria-label={`Take “${label}” away`}
              onClick={() => replace(i, null)}
            >
              Take away
            </button>
          )}
          <fieldset disabled={readOnly} className="sentence col-span-2">
            <legend className="sr-only">The order “{label}”</legend>
            <OrderWords
              sort={sort}
              columns={columns}
              onChange={(next) => replace(i, next.length === 0 ? null : { sort: next })}
            />
          </fieldset>
        </div>
      ))}
      {!readOnly && orders.length < MOST_ORDERS && columns.length > 0 && (
        <button type="button" className="button self-start" onClick={add}>
          Add an order
        </button>
      )}
    </div>
  );
}
