'use client';

import type { Issue } from '@/core/issue.ts';

interface Props {
  id: string;
  value: string;
  placeholder?: string;
  readOnly: boolean;
  issues: Issue[];
  onChange: (value: string) => void;
}

/** A pattern's control: what is wrong with it stands below, with the place named. */
export function PatternInput({ id, value, placeholder, readOnly, issues, onChange }: Props) {
  return (
    <>
      <input
        id={id}
        className="control font-mono !text-table"
        spellCheck={false}
        autoComplete="off"
        value={value}
        placeholder={placeholder}
        disabled={readOnly}
        aria-invalid={issues.length > 0}
        aria-describedby={issues.length > 0 ? `${id}-issues` : undefined}
        onChange={(e) => onChange(e.target.value)}
      />
      {issues.length > 0 && (
        <ul id={`${id}-issues`} className="mt-1">
          {issues.map((issue, i) => (
            <IssueLine
              key={i}
              issue={issue}
              value={value}
              onMend={readOnly ? undefined : onChange}
            />
          ))}
        </ul>
      )}
    </>
  );
}

/** What is wrong, where, and what would mend it at a press. */
function IssueLine({
  issue: { range, message, fix, replacement },
  value,
  onMend,
}: {
  issue: Issue;
  value: string;
  onMend: ((value: string) => void) | undefined;
}) {
  return (
    <li className="text-alarm">
      {range && (
        <code className="mr-1 bg-amber-tint px-1 font-mono text-note">
          {value.slice(range.start, range.end) || '…'}
        </code>
      )}
      {message} <span className="text-muted">{fix}</span>
      {replacement !== undefined && range && onMend && (
        <button
          type="button"
          className="button-quiet ml-1"
          onClick={() => onMend(value.slice(0, range.start) + replacement + value.slice(range.end))}
        >
          {`Use “${replacement}”`}
        </button>
      )}
    </li>
  );
}
