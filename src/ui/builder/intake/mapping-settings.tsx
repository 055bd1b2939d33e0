import type { ContentType } from '@/core/design/spec.ts';
import type { Seen } from '@/core/intake/look.ts';
import type { Mapping } from '@/core/intake/mapping.ts';

interface Props {
  mapping: Mapping;
  seen: Seen;
  types: ContentType[];
  isAgain: boolean;
  onChange: (mapping: Mapping) => void;
  onType: (key: string) => void;
}

/** Of which type entries are, which part of what was sent, and whether they go live. */
export function MappingSettings({ mapping, seen, types, isAgain, onChange, onType }: Props) {
  return (
    <div className="sentence flex flex-wrap items-center gap-2">
      <span>Make</span>
      <Choice
        label="Of which type"
        value={mapping.type}
        options={types.map(({ key, plural }) => [key, plural])}
        onChange={onType}
      />
      {seen.folders.length > 1 && (
        <>
          <span>of</span>
          <Choice
            label="Of which folder"
            value={mapping.within}
            options={foldersOf(seen)}
            onChange={(within) => onChange({ ...mapping, within })}
          />
        </>
      )}
      <span>and</span>
      <Choice
        label="Whether they go live"
        value={mapping.publish}
        options={[
          ['no', 'keep them as drafts'],
          ['not-drafts', 'publish all but drafts'],
          ['yes', 'publish them'],
        ]}
        onChange={(publish) => onChange({ ...mapping, publish: publish as Mapping['publish'] })}
      />
      <Readings {...{ mapping, seen, onChange }} />
      {isAgain && (
        <>
          <span>; what is not there any more</span>
          <Choice
            label="What becomes of entries whose records are gone"
            value={mapping.gone}
            options={[
              ['stay', 'stays'],
              ['retire', 'goes off the site'],
            ]}
            onChange={(gone) => onChange({ ...mapping, gone: gone as Mapping['gone'] })}
          />
        </>
      )}
    </div>
  );
}

/** How is read what could be read either way. */
function Readings({ mapping, seen, onChange }: Pick<Props, 'mapping' | 'seen' | 'onChange'>) {
  return (
    <>
      {seen.isEitherDay && (
        <>
          <span>, reading 2/3/2026 as</span>
          <Choice
            label="How days by numbers are read"
            value={mapping.days}
            options={[
              ['dmy', '2 March'],
              ['mdy', '3 February'],
            ]}
            onChange={(days) => onChange({ ...mapping, days: days as Mapping['days'] })}
          />
        </>
      )}
      {seen.isEitherNumber && (
        <>
          <span>, reading 1.234 as</span>
          <Choice
            label="How numbers are read"
            value={mapping.decimals}
            options={[
              ['point', 'a little more than one'],
              ['comma', 'more than a thousand'],
            ]}
            onChange={(way) => onChange({ ...mapping, decimals: way as Mapping['decimals'] })}
          />
        </>
      )}
    </>
  );
}

/** Folders that hold records, and those above them. */
function foldersOf({ folders, records }: Seen): [string, string][] {
  const all = new Map<string, number>();
  for (const { path, records: own } of folders) {
    const parts = path.split('/');
    for (let depth = 1; path !== '' && depth <= parts.length; depth++) {
      const above = parts.slice(0, depth).join('/');
      all.set(above, (all.get(above) ?? 0) + own);
    }
  }
  const named = [...all].sort(([a], [b]) => (a < b ? -1 : 1));
  return [
    ['', `all of it (${records.toLocaleString('en')})`],
    ...named.map(([path, n]): [string, string] => [path, `${path} (${n.toLocaleString('en')})`]),
  ];
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: [value: string, label: string][];
  onChange: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="control w-auto max-w-72"
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      {options.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </select>
  );
}
