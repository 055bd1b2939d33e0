'use client';

import { conditionSpecs } from '@/core/design/listing-spec.ts';
import type { ListingDetail } from '@/server/queries/listing.ts';
import { Word, WordInput } from '@/ui/primitives/word.tsx';
import { WhereWords } from './where-words.tsx';
import { OrderWords } from './order-words.tsx';

type Spec = ListingDetail['spec'];

/** The query as one sentence; its words are the controls. */
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
  const setWhere = (where: Spec['where']): void => {
    const { where: _, ...rest } = spec;
    onChange((where === undefined ? rest : { ...spec, where }) as Spec);
  };
  const setAlso = (also: string[]): void => {
    const { also: _, ...rest } = spec;
    onChange((also.length === 0 ? rest : { ...spec, also }) as Spec);
  };
  const setCard = (key: string): void => {
    const { card: _, ...rest } = spec;
    onChange((key === '' ? rest : { ...spec, card: key }) as Spec);
  };
  return (
    <fieldset disabled={readOnly} className="sentence">
      <legend className="sr-only">The listing as a sentence</legend>
      <strong>{detail.typeLabel}</strong>
      <AlsoWords
        also={spec.also ?? []}
        others={detail.types.filter(({ key }) => key !== spec.type)}
        onChange={setAlso}
      />
      <WhereWords where={spec.where} detail={detail} onChange={setWhere} />
      {'; '}
      <OrderWords
        sort={spec.sort}
        columns={detail.columns.filter(
          (c) => c.sortable && (c.name !== PLACE || asksOfPlaces(spec.where)),
        )}
        onChange={(sort) => onChange({ ...spec, sort })}
      />
      {'; '}
      <WordInput
        label="Entries to a page"
        value={String(spec.pageSize)}
        onChange={(text) =>
          onChange({ ...spec, pageSize: (/^\d+$/.test(text) ? Number(text) : text) as number })
        }
      />
      {' to a page, '}
      <CutWords spec={spec} onChange={onChange} />
      {'; drawn as '}
      <Word
        label="Card"
        value={spec.card ?? ''}
        options={[
          { value: '', label: 'the type’s own card' },
          ...detail.cards.map((c) => ({ value: c.key, label: c.label })),
        ]}
        onChange={setCard}
      />
      .
    </fieldset>
  );
}

/** How many there are at most, and how many of the first are left out. */
function CutWords({ spec, onChange }: { spec: Spec; onChange: (spec: Spec) => void }) {
  const set = (what: 'skip' | 'most', text: string): void => {
    const { [what]: _, ...rest } = spec;
    const number = /^\d+$/.test(text) ? Number(text) : text;
    onChange((text === '' || text === '0' ? rest : { ...rest, [what]: number }) as Spec);
  };
  return (
    <>
      {'at most '}
      <WordInput
        label="How many in all"
        value={String(spec.most ?? '')}
        placeholder="all"
        onChange={(text) => set('most', text)}
      />
      {' of them, after the first '}
      <WordInput
        label="How many of the first are left out"
        value={String(spec.skip ?? '')}
        placeholder="0"
        onChange={(text) => set('skip', text)}
      />
    </>
  );
}

/** The order in which conditions name entries, which only those have. */
const PLACE = 'entry.place';

function asksOfPlaces(where: Spec['where']): boolean {
  return conditionSpecs(where).some(({ field }) => field === 'entry' || field === 'entry.picks');
}

const LEAVE_OUT = '(leave these out)';

/** Further types whose entries stand in it. */
function AlsoWords({
  also,
  others,
  onChange,
}: {
  also: readonly string[];
  others: ListingDetail['types'];
  onChange: (also: string[]) => void;
}) {
  const options = others.map(({ key, label }) => ({ value: key, label }));
  const left = options.filter(({ value }) => !also.includes(value));
  const replace = (i: number, next: string): void =>
    onChange(also.flatMap((key, n) => (n === i ? (next === LEAVE_OUT ? [] : [next]) : [key])));
  return (
    <>
      {also.map((key, i) => (
        <span key={key}>
          {i === also.length - 1 ? ' and ' : ', '}
          <Word
            label="Also listed"
            value={key}
            options={[
              ...options.filter(({ value }) => value === key || !also.includes(value)),
              { value: LEAVE_OUT, label: LEAVE_OUT },
            ]}
            onChange={(next) => replace(i, next)}
          />
        </span>
      ))}{' '}
      {left.length > 0 && (
        <Word
          label="Add a type"
          quiet
          value=""
          options={[{ value: '', label: 'and …' }, ...left]}
          onChange={(key) => key !== '' && onChange([...also, key])}
        />
      )}
    </>
  );
}
