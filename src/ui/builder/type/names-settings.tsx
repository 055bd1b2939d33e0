import type { Issue } from '@/core/issue.ts';
import { singleName } from '@/core/design/environment.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import type { Clock } from '@/server/queries/clock.ts';
import type { TypeDetail } from '@/server/queries/type.ts';
import { Line } from '@/ui/primitives/line.tsx';
import { KeyLine } from './key-line.tsx';

type Spec = TypeDetail['spec'];

const WORDS = [
  ['label', 'Name', 'What one of them is called.'],
  ['plural', 'Several', 'What several are called.'],
  ['description', 'Description', 'Read where somebody chooses what to create.'],
] as const;

/** What a type is called, and which of its fields name and introduce its entries. */
export function NamesSettings({
  spec,
  clock,
  readOnly,
  issuesAt,
  onChange,
  onRename,
}: {
  spec: Spec;
  clock: Clock;
  readOnly: boolean;
  issuesAt: (place: string) => Issue[];
  onChange: (spec: Spec) => void;
  onRename: (path: string, was: string, now: string) => void;
}) {
  const named = spec.fields.filter((f) => ['line', 'lines'].includes(kindOf(f).control));
  const introducing = spec.fields.filter((f) => ['lines', 'rich-text'].includes(kindOf(f).control));
  const without = ({ summary: _, ...rest }: Spec): Spec => rest as Spec;
  return (
    <>
      <Words {...{ spec, readOnly, issuesAt, onChange }} />
      <KeyLine
        id="type-key"
        value={spec.key}
        help="Its name in files and in the addresses of screens."
        part={`types/${spec.id}`}
        at={clock.at}
        readOnly={readOnly}
        onRename={(now) => onRename(`types/${spec.id}`, spec.key, now)}
      />
      <Line label="Named by" htmlFor="type-naming" help="The field that names an entry in lists.">
        <FieldChoice
          id="type-naming"
          fields={named}
          value={spec.naming}
          readOnly={readOnly}
          onChange={(naming) => onChange({ ...spec, naming })}
        />
        <Wrong issues={issuesAt('naming')} />
      </Line>
      <Line label="Introduced by" htmlFor="type-summary" help="Stands on cards and in results.">
        <FieldChoice
          id="type-summary"
          fields={introducing}
          value={spec.summary ?? ''}
          none="The start of the first rich text"
          readOnly={readOnly}
          onChange={(summary) => onChange(summary === '' ? without(spec) : { ...spec, summary })}
        />
        <Wrong issues={issuesAt('summary')} />
      </Line>
      <Line label="How many" help={singleHelp(spec)}>
        <label className="flex items-center gap-2 py-1">
          <input
            type="checkbox"
            className="h-4 w-4 accent-spruce"
            checked={spec.single ?? false}
            disabled={readOnly}
            onChange={(e) => onChange(singleOr(spec, e.target.checked))}
          />
          Exactly one entry
        </label>
        <Wrong issues={issuesAt('single')} />
      </Line>
    </>
  );
}

function singleOr({ single: _, ...rest }: Spec, on: boolean): Spec {
  return (on ? { ...rest, single: true } : rest) as Spec;
}

function singleHelp({ single, key, fields }: Spec): string | null {
  if (!single) return 'Such as the settings of a club: patterns everywhere can read it.';
  const field = fields[0]?.key ?? 'field';
  return `Patterns everywhere read it: {site.${singleName(key)}.${field}}.`;
}

function FieldChoice({
  id,
  fields,
  value,
  none,
  readOnly,
  onChange,
}: {
  id: string;
  fields: Spec['fields'];
  value: string;
  none?: string;
  readOnly: boolean;
  onChange: (key: string) => void;
}) {
  const isThere = none !== undefined && value === '' ? true : fields.some((f) => f.key === value);
  return (
    <select
      id={id}
      className="control"
      disabled={readOnly}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      {none !== undefined && <option value="">{none}</option>}
      {!isThere && <option value={value}>{value}</option>}
      {fields.map(({ key, label }) => (
        <option key={key} value={key}>
          {label}
        </option>
      ))}
    </select>
  );
}

/** What is wrong with a setting, below it. */
export function Wrong({ issues }: { issues: Issue[] }) {
  return issues.map(({ message, fix }) => (
    <p key={message} className="mt-1 text-note">
      <span className="text-alarm">{message}</span> <span className="text-muted">{fix}</span>
    </p>
  ));
}

function Words({
  spec,
  readOnly,
  issuesAt,
  onChange,
}: {
  spec: Spec;
  readOnly: boolean;
  issuesAt: (place: string) => Issue[];
  onChange: (spec: Spec) => void;
}) {
  return (
    <>
      {WORDS.map(([key, label, help]) => (
        <Line key={key} label={label} htmlFor={`type-${key}`} help={help}>
          <input
            id={`type-${key}`}
            className="control"
            value={spec[key]}
            readOnly={readOnly}
            onChange={(e) => onChange({ ...spec, [key]: e.target.value })}
          />
          <Wrong issues={issuesAt(key)} />
        </Line>
      ))}
    </>
  );
}
