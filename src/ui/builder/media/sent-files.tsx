import { UNREACHABLE } from '../send.ts';
import { type SendingFiles, type SentFile, isUnderway } from './use-sending.ts';

/** Files that are being sent, each with how far it is and what can be done about it. */
export function SentFiles({ sending }: { sending: SendingFiles }) {
  const { files, cancel, again, clear } = sending;
  if (files.length === 0) return null;
  const left = files.filter(isUnderway).length;
  return (
    <section aria-label="Files being sent" className="border border-rule bg-white">
      <div className="flex h-8 items-center gap-3 border-b border-rule px-3">
        <span role="status" className="flex-1">
          {left > 0 ? `Sending: ${left} of ${files.length} left` : doneWords(files)}
        </span>
        {left < files.length && (
          <button type="button" className="button-quiet" onClick={clear}>
            Clear
          </button>
        )}
      </div>
      <ul className="max-h-40 overflow-auto">
        {files.map((file) => (
          <li key={file.key} className="flex items-center gap-3 px-3 py-1">
            <span className="w-56 shrink-0 truncate" title={file.file.name}>
              {file.file.name}
            </span>
            <State file={file} />
            {isUnderway(file) && (
              <button
                type="button"
                className="button-quiet"
                aria-label={`Cancel ${file.file.name}`}
                onClick={() => cancel(file.key)}
              >
                Cancel
              </button>
            )}
            {mayGoOn(file) && (
              <button
                type="button"
                className="button-quiet"
                aria-label={`Go on with ${file.file.name}`}
                onClick={() => again(file.key)}
              >
                Go on
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What may end otherwise when it is tried again; a file that cannot be kept stays one. */
const PASSING = new Set([UNREACHABLE.code, 'not-kept', 'incomplete', 'upload-gone']);

function mayGoOn({ state, issues }: SentFile): boolean {
  return state === 'cancelled' || issues.some(({ code }) => PASSING.has(code));
}

function doneWords(files: readonly SentFile[]): string {
  const arrived = files.filter(({ state }) => state === 'done').length;
  return arrived === files.length
    ? `${arrived} sent`
    : `${arrived} of ${files.length} sent, the others not`;
}

function State({ file }: { file: SentFile }) {
  const { state, received, issues, arrived } = file;
  if (state === 'refused')
    return (
      <span className="min-w-0 flex-1 text-alarm">
        {issues.map(({ message, fix }) => [message, fix].filter(Boolean).join(' ')).join(' ')}
      </span>
    );
  if (arrived)
    return (
      <span className="min-w-0 flex-1 truncate text-muted">
        {arrived.isNew ? `There as ${arrived.id}` : `Is ${arrived.id} now`}
      </span>
    );
  if (state === 'cancelled') return <span className="flex-1 text-muted">Cancelled</span>;
  const { size, name } = file.file;
  return (
    <span className="flex min-w-0 flex-1 items-center gap-2">
      <progress
        aria-label={name}
        max={size || 1}
        value={received}
        className="h-2 w-40 accent-spruce"
      />
      <span className="truncate text-muted">{WORDS[state] ?? megabytes(received, size)}</span>
    </span>
  );
}

const WORDS: Partial<Record<SentFile['state'], string>> = {
  waiting: 'Waits its turn',
  unreachable: 'The server cannot be reached; tried again by itself',
  'looked at': 'Being looked at',
};

function megabytes(received: number, size: number): string {
  const of = (bytes: number): string => (bytes / 1024 ** 2).toFixed(1);
  return `${of(received)} of ${of(size)} MB`;
}
