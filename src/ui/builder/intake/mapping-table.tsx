import { kindOf } from '@/core/design/kinds/index.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { KeySeen } from '@/core/intake/look.ts';
import { PLACES } from '@/core/intake/mapping.ts';
import { OWN_KEYS } from '@/core/intake/record.ts';
import { Table } from '@/ui/primitives/table.tsx';
import { useMay } from '../rights.tsx';

/** What keys become: fields by their keys, places, or `new` for a field that is still to be made. */
export type Becomes = Readonly<Record<string, string>>;

const OWN_LABELS: Record<string, string> = {
  [OWN_KEYS.path]: 'The file’s path',
  [OWN_KEYS.heading]: 'The first heading',
  [OWN_KEYS.body]: 'The text',
};

/** What a key is called on screens. */
export function labelOf(key: string): string {
  return OWN_LABELS[key] ?? key;
}

/** Every key or column with what stands under it, and what it becomes. */
export function MappingTable({
  keys,
  records,
  type,
  becomes,
  onChange,
}: {
  keys: readonly KeySeen[];
  records: number;
  type: ContentType;
  becomes: Becomes;
  onChange: (becomes: Becomes) => void;
}) {
  const put = (key: string, to: string): void => {
    const { [key]: _, ...rest } = becomes;
    onChange(to === '' ? rest : { ...rest, [key]: to });
  };
  return (
    <Table
      label="What becomes what"
      rows={keys}
      keyOf={({ name }) => name}
      columns={[
        {
          key: 'key',
          head: 'There',
          cell: ({ name }) => <span className="font-medium">{labelOf(name)}</span>,
        },
        {
          key: 'samples',
          head: 'Says',
          cell: ({ samples }) => (
            <span className="block max-w-72 truncate text-muted" title={samples.join('\n')}>
              {samples.join(' · ').replace(/\s+/g, ' ')}
            </span>
          ),
        },
        {
          key: 'count',
          head: 'In',
          cell: ({ count }) => (
            <span className="whitespace-nowrap text-muted tabular-nums">
              {count === records ? 'all' : count.toLocaleString('en')}
            </span>
          ),
        },
        {
          key: 'becomes',
          head: 'Becomes',
          cell: (seen) => (
            <BecomesSelect seen={seen} type={type} becomes={becomes} onChange={put} />
          ),
        },
      ]}
    />
  );
}

function BecomesSelect({
  seen: { name, kind },
  type,
  becomes,
  onChange,
}: {
  seen: KeySeen;
  type: ContentType;
  becomes: Becomes;
  onChange: (key: string, to: string) => void;
}) {
  const mayDesign = useMay('change-design');
  const names = Object.keys(becomes);
  const own = names.includes(name) ? names.indexOf(name) : names.length;
  const before = new Set(names.slice(0, own).map((key) => becomes[key]));
  const mark = (to: string): string => (before.has(to) ? ', where nothing else says it' : '');
  const words = kindOf({ kind }).words;
  return (
    <select
      aria-label={`What ${labelOf(name)} becomes`}
      className={`control w-64 ${becomes[name] === undefined ? 'text-muted' : ''}`}
      value={becomes[name] ?? ''}
      onChange={(e) => onChange(name, e.target.value)}
    >
      <option value="">Left out</option>
      {mayDesign && !name.startsWith('@') && <option value="new">{`A new field, ${words}`}</option>}
      <optgroup label="Fields">
        {type.fields
          .filter((f) => !kindOf(f).derived)
          .map(({ key, label }) => (
            <option key={key} value={key}>
              {label + mark(key)}
            </option>
          ))}
      </optgroup>
      <optgroup label="Besides">
        {Object.entries(PLACES).map(([place, label]) => (
          <option key={place} value={place}>
            {label}
          </option>
        ))}
      </optgroup>
    </select>
  );
}
