'use client';

import { useState } from 'react';
import {
  type ConditionSpec,
  type Operator,
  elsewhereOf,
  literalsOf,
} from '@/core/design/listing-spec.ts';
import { UNITS } from '@/core/listing/operand.ts';
import type { ListingColumn } from '@/server/queries/listing-columns.ts';
import type { ListingDetail } from '@/server/queries/listing.ts';
import { Word, WordInput } from '@/ui/primitives/word.tsx';
import { EntryPicker } from '../entry-picker.tsx';
import { ask } from '../send.ts';

type Value = string | number | boolean;

const MANY: readonly Operator[] = ['any-of', 'all-of', 'none-of'];
const NO_VALUE: readonly Operator[] = ['blank', 'not-blank', 'on-this-day'];
const LENGTHS: readonly Operator[] = ['within-last', 'within-next'];
const LEAVE_OUT = '(leave this condition out)';

/** What conditions are chosen from. */
export type Asked = Pick<ListingDetail, 'columns' | 'names' | 'at'> & {
  /** Key of the type whose entries complete what is typed, null for all; undefined for none. */
  ofType?: string | null;
};

interface Props {
  condition: ConditionSpec;
  detail: Asked;
  /** Null leaves it out. */
  onChange: (condition: ConditionSpec | null) => void;
}

/** One condition as words of the sentence: what is asked, how, and with what it is compared. */
export function ConditionWords({ condition, detail, onChange }: Props) {
  const { columns } = detail;
  const column = columns.find((c) => c.name === condition.field);
  const setField = (field: string): void => {
    if (field === LEAVE_OUT) return onChange(null);
    const next = columns.find((c) => c.name === field)!;
    const same = next.operators.some((o) => o.op === condition.op);
    const op = same ? condition.op : next.operators[0]!.op;
    onChange(withValue({ field, op }, next, undefined));
  };
  const setOperator = (op: string): void =>
    onChange(withValue({ field: condition.field, op: op as Operator }, column!, condition.value));
  return (
    <span data-condition>
      <Word
        label="Field"
        value={condition.field}
        options={[
          ...columns
            .filter(({ operators }) => operators.length > 0)
            .map((c) => ({ value: c.name, label: c.label })),
          { value: LEAVE_OUT, label: LEAVE_OUT },
        ]}
        onChange={setField}
      />{' '}
      {column && (
        <Word
          label="Operator"
          value={condition.op}
          options={column.operators.map((o) => ({ value: o.op, label: o.words }))}
          onChange={setOperator}
        />
      )}{' '}
      {column && !NO_VALUE.includes(condition.op) && (
        <>
          {elsewhereOf(condition) === null && (
            <ValueWords column={column} condition={condition} detail={detail} onChange={onChange} />
          )}{' '}
          <ElsewhereWords column={column} condition={condition} onChange={onChange} />
        </>
      )}
    </span>
  );
}

const OWN_VALUE = '(a value of its own)';
/** Operators that compare with a stretch, which stands in the condition itself. */
const SPANNING: readonly Operator[] = ['between', 'within-last', 'within-next', 'this'];

/** What is compared with where that stands elsewhere: on the page, or in the site's settings. */
function ElsewhereWords({
  column,
  condition,
  onChange,
}: Omit<Props, 'detail'> & { column: ListingColumn }) {
  const elsewhere = elsewhereOf(condition);
  if (column.elsewhere.length === 0 || SPANNING.includes(condition.op)) return null;
  const [[of, name] = ['', '']] = Object.entries(elsewhere ?? {}) as [string, string][];
  const set = (chosen: string): void => {
    const { value: _, ...rest } = condition;
    if (chosen === OWN_VALUE) return onChange(withValue(rest, column, undefined));
    const [kind, ...named] = chosen.split(':');
    const key = named.join(':');
    onChange({ ...rest, value: kind === 'page' ? { page: key } : { site: key } });
  };
  return (
    <Word
      label="Compared with"
      quiet={elsewhere === null}
      value={elsewhere === null ? '' : `${of}:${name}`}
      options={[
        elsewhere === null
          ? { value: '', label: 'or what stands elsewhere …' }
          : { value: OWN_VALUE, label: OWN_VALUE },
        ...column.elsewhere,
      ]}
      onChange={(chosen) => chosen !== '' && set(chosen)}
    />
  );
}

/** Values that only some operators have. */
const OF_OTHERS: ReadonlySet<string> = new Set(['7 days', ...UNITS]);

/** A condition with a value that fits its operator, a first guess where there is none. */
function withValue(
  condition: Pick<ConditionSpec, 'field' | 'op'>,
  column: ListingColumn,
  value: ConditionSpec['value'],
): ConditionSpec {
  const { op } = condition;
  if (NO_VALUE.includes(op)) return condition;
  if (LENGTHS.includes(op)) return { ...condition, value: '7 days' };
  if (op === 'this') return { ...condition, value: 'month' };
  const guesses: Record<string, Value> = { number: 0, yesno: true, day: 'today', instant: 'now' };
  const guess = column.options[0]?.value ?? guesses[column.family] ?? '';
  const [single] = literalsOf({ value }).filter((one) => !OF_OTHERS.has(String(one)));
  const first = single ?? guess;
  if (op === 'between') return { ...condition, value: [first, first] };
  return { ...condition, value: MANY.includes(op) ? [first] : first };
}

/** What is compared with: one thing, or several joined by "or". */
function ValueWords({ column, condition, detail, onChange }: Props & { column: ListingColumn }) {
  const values = literalsOf(condition);
  if (condition.op === 'between')
    return <BetweenWords {...{ column, condition, detail, onChange }} />;
  if (condition.op === 'this')
    return (
      <Word
        label="Value"
        value={String(values[0] ?? '')}
        options={UNITS.map((unit) => ({ value: unit, label: unit }))}
        onChange={(value) => onChange({ ...condition, value })}
      />
    );
  if (LENGTHS.includes(condition.op))
    return (
      <WordInput
        label="Value"
        value={String(values[0] ?? '')}
        placeholder="…"
        suggestions={SPANS}
        onChange={(value) => onChange({ ...condition, value })}
      />
    );
  if (!MANY.includes(condition.op))
    return (
      <OneValue
        column={column}
        detail={detail}
        value={values[0]}
        onChange={(value) => onChange({ ...condition, value })}
      />
    );
  const put = (next: Value[]): void => onChange({ ...condition, value: next });
  return (
    <>
      {values.map((value, i) => (
        <span key={i}>
          {i > 0 && ' or '}
          <OneValue
            column={column}
            detail={detail}
            value={value}
            onChange={(next) => put(values.map((v, n) => (n === i ? next : v)))}
            {...(values.length > 1
              ? { onRemove: () => put(values.filter((_, n) => n !== i)) }
              : {})}
          />
        </span>
      ))}{' '}
      <button
        type="button"
        className="word word-quiet"
        onClick={() => put([...values, column.options.at(-1)?.value ?? ''])}
      >
        or …
      </button>
    </>
  );
}

/** What something lies between, both ends included. */
function BetweenWords({ column, condition, detail, onChange }: Props & { column: ListingColumn }) {
  const [from = '', to = ''] = literalsOf(condition);
  const put = (value: [Value, Value]): void => onChange({ ...condition, value });
  return (
    <>
      <OneValue {...{ column, detail }} value={from} onChange={(next) => put([next, to])} /> and{' '}
      <OneValue {...{ column, detail }} value={to} onChange={(next) => put([from, next])} />
    </>
  );
}

interface OneProps {
  column: ListingColumn;
  detail: Asked;
  value: Value | undefined;
  onChange: (value: Value) => void;
  onRemove?: () => void;
}

const SPANS = ['7 days', '2 weeks', '30 days', '36 hours'].map((value) => ({ value }));
const DAYS = ['today', 'today + 7', 'today - 7'].map((value) => ({ value }));
const REMOVE = '(not this one)';

function OneValue(props: OneProps) {
  const { column, value, onChange, onRemove } = props;
  if (column.entryTypes !== undefined) return <EntryValue {...props} />;
  const text = String(value ?? '');
  if (column.options.length > 0)
    return (
      <Word
        label="Value"
        value={text}
        options={[...column.options, ...(onRemove ? [{ value: REMOVE, label: REMOVE }] : [])]}
        onChange={(next) => (next === REMOVE ? onRemove?.() : onChange(next))}
      />
    );
  if (column.family === 'yesno')
    return (
      <Word
        label="Value"
        value={value === true || value === 'yes' ? 'yes' : 'no'}
        options={[
          { value: 'yes', label: 'yes' },
          { value: 'no', label: 'no' },
        ]}
        onChange={(next) => onChange(next === 'yes')}
      />
    );
  return <TypedValue {...props} />;
}

/** A value that is typed, completed from what entries have where that is known. */
function TypedValue({ column, detail, value, onChange }: OneProps) {
  const [used, setUsed] = useState<{ value: string; label: string }[] | null>(null);
  const { family } = column;
  const isDate = family === 'day' || family === 'instant';
  const complete = (): void => {
    if (detail.ofType === undefined || used !== null) return;
    setUsed([]);
    const asked = { at: detail.at, type: detail.ofType, field: column.name };
    void ask<{ value: string; label: string }[]>('used', asked).then((answer) => {
      if ('value' in answer) setUsed(answer.value);
    });
  };
  return (
    <WordInput
      label="Value"
      value={String(value ?? '')}
      placeholder="…"
      suggestions={[...(isDate ? DAYS : []), ...(used ?? [])]}
      onFocus={complete}
      onChange={(next) =>
        onChange(family === 'number' && /^-?\d+(\.\d+)?$/.test(next.trim()) ? Number(next) : next)
      }
    />
  );
}

/** An entry that is compared with, by its name; pressed, another is searched for. */
function EntryValue({ column, detail, value, onChange }: OneProps) {
  const [name, setName] = useState<string | null>(null);
  const [choosing, setChoosing] = useState(value === undefined || value === '');
  const shown = name ?? detail.names[String(value)] ?? String(value ?? '');
  if (!choosing)
    return (
      <button type="button" className="word" title="Value" onClick={() => setChoosing(true)}>
        {shown}
      </button>
    );
  return (
    <span className="inline-block w-64 align-middle">
      <EntryPicker
        id={`value-${column.name}`}
        label="Search …"
        types={column.entryTypes ?? null}
        at={detail.at}
        onPick={(entry) => {
          setName(entry.name);
          setChoosing(false);
          onChange(entry.id);
        }}
      />
    </span>
  );
}
