import type { Issue } from '@/core/issue.ts';
import { Line } from '@/ui/primitives/line.tsx';
import type { StyleLines } from './style-lines.ts';

/** Rules of the site's own, after those of the style; what is wrong with them, by line. */
export function OwnRules({ spec, readOnly, onChange, issues }: StyleLines & { issues: Issue[] }) {
  const own = issues.filter(({ path = '' }) => path.startsWith('style/css'));
  return (
    <Line
      label="Own rules"
      htmlFor="style-css"
      help="CSS, after the rules of the style; it can use its properties: var(--accent), var(--s3)."
    >
      <textarea
        id="style-css"
        className="control !h-48 font-mono !text-note"
        spellCheck={false}
        readOnly={readOnly}
        aria-invalid={own.length > 0 || undefined}
        value={spec.css}
        onChange={(e) => onChange({ ...spec, css: e.target.value })}
      />
      {own.map(({ message, fix, line }, i) => (
        <p key={i} className="mt-1 text-alarm">
          {line === undefined ? '' : `Line ${line}: `}
          {message} <span className="text-muted">{fix}</span>
        </p>
      ))}
    </Line>
  );
}
