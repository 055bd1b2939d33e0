import {
  type ConditionSpec,
  type FilterSpec,
  type GroupKind,
  groupOf,
} from '@/core/design/listing-spec.ts';
import type { ListingColumn } from '@/server/queries/listing-columns.ts';
import { Word } from '@/ui/primitives/word.tsx';
import { type Asked, ConditionWords } from './condition-words.tsx';

/** Conditions as words of a sentence: " of which …". */
export function WhereWords({
  where,
  detail,
  onChange,
}: {
  where: FilterSpec | undefined;
  detail: Asked;
  /** Undefined where none is left. */
  onChange: (where: FilterSpec | undefined) => void;
}) {
  const set = (filter: FilterSpec): void =>
    onChange(membersOf(filter).length === 0 ? undefined : filter);
  return <Group filter={asGroup(where)} detail={detail} depth={0} onChange={set} />;
}

function asGroup(filter: FilterSpec | undefined): FilterSpec {
  if (filter === undefined) return { all: [] };
  return 'field' in filter ? { all: [filter] } : filter;
}

function membersOf(filter: FilterSpec): FilterSpec[] {
  return groupOf(filter)?.filters ?? [filter];
}

const KINDS: { value: GroupKind; label: string; joint: string }[] = [
  { value: 'all', label: 'all of these hold', joint: 'and' },
  { value: 'any', label: 'any of these holds', joint: 'or' },
  { value: 'none', label: 'none of these holds', joint: 'nor' },
];

interface GroupProps {
  filter: FilterSpec;
  detail: Asked;
  depth: number;
  onChange: (filter: FilterSpec) => void;
}

/** Conditions joined by words; groups within stand on indented lines. */
function Group({ filter, detail, depth, onChange }: GroupProps) {
  const { kind, filters: members } = groupOf(filter)!;
  const { id } = filter;
  const { joint } = KINDS.find((k) => k.value === kind)!;
  const put = (next: FilterSpec[]): void => onChange(asFilter(id, kind, next));
  const replace = (i: number, next: FilterSpec | null): void =>
    put(members.flatMap((m, n) => (n === i ? (next === null ? [] : [next]) : [m])));
  const counts = members.length > 1 || kind !== 'all' || depth > 0;
  return (
    <>
      {members.length > 0 && (depth === 0 ? ' of which ' : ' ')}
      {counts && (
        <>
          <Word
            label="How conditions combine"
            value={kind}
            options={KINDS}
            onChange={(next) => onChange(asFilter(id, next as GroupKind, members))}
          />
          {': '}
        </>
      )}
      {members.map((member, i) => (
        <Member
          key={i}
          joint={i === 0 ? '' : `${joint} `}
          member={member}
          detail={detail}
          depth={depth}
          onChange={(next) => replace(i, next)}
        />
      ))}
      <AddWord
        joint={members.length === 0 ? 'of which …' : `${joint} …`}
        columns={detail.columns.filter(({ operators }) => operators.length > 0)}
        groups={depth < 2 && members.length > 0}
        onAdd={(next) => put([...members, next])}
      />
    </>
  );
}

function Member({
  joint,
  member,
  detail,
  depth,
  onChange,
}: Omit<GroupProps, 'filter' | 'onChange'> & {
  joint: string;
  member: FilterSpec;
  onChange: (next: FilterSpec | null) => void;
}) {
  if ('field' in member)
    return (
      <>
        {joint}
        <ConditionWords condition={member} detail={detail} onChange={onChange} />{' '}
      </>
    );
  return (
    <span className="block border-l-2 border-rule pl-4">
      {joint}
      <Group
        filter={member}
        detail={detail}
        depth={depth + 1}
        onChange={(next) => onChange(membersOf(next).length === 0 ? null : next)}
      />
    </span>
  );
}

/** The word that goes on: another condition, or a group of them. */
function AddWord({
  joint,
  columns,
  groups,
  onAdd,
}: {
  joint: string;
  columns: ListingColumn[];
  groups: boolean;
  onAdd: (filter: FilterSpec) => void;
}) {
  const add = (name: string): void => {
    if (name === '') return;
    if (name === 'any of') return onAdd({ any: [fresh(columns[0]!)] });
    onAdd(fresh(columns.find((c) => c.name === name)!));
  };
  return (
    <Word
      label="Add a condition"
      quiet
      value=""
      options={[
        { value: '', label: joint },
        ...columns.map((c) => ({ value: c.name, label: c.label })),
        ...(groups ? [{ value: 'any of', label: 'a group: any of …' }] : []),
      ]}
      onChange={add}
    />
  );
}

function asFilter(id: string | undefined, kind: GroupKind, filters: FilterSpec[]): FilterSpec {
  return { ...(id === undefined ? {} : { id }), [kind]: filters } as unknown as FilterSpec;
}

function fresh({ name, operators, options }: ListingColumn): ConditionSpec {
  if (operators.some(({ op }) => op === 'not-blank')) return { field: name, op: 'not-blank' };
  return { field: name, op: operators[0]!.op, value: options[0]?.value ?? '' };
}
