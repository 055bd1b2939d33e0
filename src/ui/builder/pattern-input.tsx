'use client';

import type { Issue } from '@/core/issue.ts';

/** A pattern's control: what is wrong with it stands below, with the place named. */
export function PatternInput({
  id,
  value,
  placeholder,
  readOnly,
  issues,
  onChange,
}: {
  id: string;
  value: string;
  placeholder?: string;
  readOnly: boolean;
  issues: Issue[];
  onChange: (value: string) => void;
}) {
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
            <li key={i} className="text-alarm">
              {issue.range && (
                <code className="mr-1 bg-amber-tint px-1 font-mono text-note">
                  {value.slice(issue.range.start, issue.range.end) || '…'}
                </code>
              )}
              {issue.message} <span className="text-muted">{issue.fix}</span>
              {issue.replacement !== undefined && issue.range && !readOnly && (
                <button
                  type="button"
                  className="button-quiet ml-1"
                  onClick={() =>
                    onChange(
                      value.slice(0, issue.range!.start) +
                        issue.replacement +
                        value.slice(issue.range!.end),
                    )
                  }
                >
                  {`Use “${issue.replacement}”`}
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
