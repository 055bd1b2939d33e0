import { useState } from 'react';
import type { Readers } from '@/core/design-edit/readers.ts';
import { Line } from '@/ui/primitives/line.tsx';

import { useAsked } from '../use-asked.ts';
import { ReaderWords } from './reader-words.tsx';

/** A key, and how to rename it. */
export function KeyLine({
  id,
  value,
  help,
  part,
  at,
  readOnly,
  onRename,
}: {
  id: string;
  value: string;
  help: string;
  /** What is renamed, by its path; what reads it follows. Null where nothing can. */
  part: string | null;
  /** The instant looked at, ms UTC. */
  at: number;
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
      {part !== null && now !== value && now !== '' && <Following {...{ part, at }} />}
    </Line>
  );
}

/** What follows when a part gets another key. */
function Following({ part, at }: { part: string; at: number }) {
  const { answer } = useAsked<Readers>('readers', { at, part });
  if (!answer) return null;
  return (
    <div className="mt-1" role="status">
      <ReaderWords readers={answer} verb="These follow" />
    </div>
  );
}
