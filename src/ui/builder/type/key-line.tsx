import { useState } from 'react';
import { Line } from '@/ui/primitives/line.tsx';

/** A key, and how to rename it. */
export function KeyLine({
  id,
  value,
  help,
  readOnly,
  onRename,
}: {
  id: string;
  value: string;
  help: string;
  readOnly: boolean;
  onRename: (key: string) => void;
}) {
  const [written, setWritten] = useState<string | null>(null);
  const now = (written ?? value).trim();
  const rename = (): void => {
    setWritten(null);
    if (now !== '' && now !== value) onRename(now);
  };
  return (
    <Line label="Key" htmlFor={id} help={help}>
      <div className="flex gap-2">
        <input
          id={id}
          className="control font-mono"
          maxLength={64}
          spellCheck={false}
          value={written ?? value}
          readOnly={readOnly}
          onChange={(e) => setWritten(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && rename()}
        />
        {!readOnly && (
          <button
            type="button"
            className="button shrink-0"
            disabled={now === '' || now === value}
            onClick={rename}
          >
            Rename
          </button>
        )}
      </div>
    </Line>
  );
}
