'use client';

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
  const setCard = (key: string): void => {
    const { card: _, ...rest } = spec;
    onChange((key === '' ? rest : { ...spec, card: key }) as Spec);
  };
  return (
    <fieldset disabled={readOnly} className="sentence">
      <legend className="sr-only">The listing as a sentence</legend>
      <strong>{detail.typeLabel}</strong>
      <WhereWords where={spec.where} detail={detail} onChange={setWhere} />
      {'; '}
      <OrderWords
        sort={spec.sort}
        columns={detail.columns.filter((c) => c.sortable)}
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
      {' to a page; drawn as '}
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
