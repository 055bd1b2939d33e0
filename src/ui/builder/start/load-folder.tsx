'use client';

import { type InputHTMLAttributes, useRef } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { Trial } from '@/server/commands/load/trial.ts';
import { Issues, SaidLine } from '@/ui/primitives/issues.tsx';
import { Table } from '@/ui/primitives/table.tsx';
import { BusyLine } from './busy-line.tsx';
import { useFolder } from './use-folder.ts';

/** A site folder, or a .zip of one, from this machine: told what it would do, then loaded. */
export function LoadFolder({ replaces }: { replaces?: string }) {
  const { state, send, load, drop } = useFolder();
  if (state.is === 'busy') return <BusyLine {...state} />;
  if (state.is === 'tried')
    return (
      <Tried
        trial={state.trial}
        replaces={replaces}
        onLoad={() => void load(state.id, replaces !== undefined)}
        onDrop={() => drop(state.id)}
      />
    );
  return (
    <div className="relative mt-2 flex flex-col gap-2">
      <SaidLine said={state.said === null ? null : { words: state.said }} />
      <Issues issues={state.issues.map(withPlace)} title={refusedTitle(state.issues)} answers />
      <div className="flex gap-3">
        <FileButton words="Choose a folder" onFiles={send} {...{ webkitdirectory: '' }} />
        <FileButton words="Choose a .zip" onFiles={send} accept=".zip,application/zip" />
      </div>
    </div>
  );
}

function FileButton({
  words,
  onFiles,
  ...rest
}: {
  words: string;
  onFiles: (files: readonly File[]) => Promise<void>;
} & InputHTMLAttributes<HTMLInputElement>) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className="button" onClick={() => input.current!.click()}>
        {words}
      </button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={words}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = ''; // so that the same can be chosen again once it is mended
          if (files.length > 0) void onFiles(files);
        }}
        {...rest}
      />
    </>
  );
}

const SORTS = [
  ['types', 'Content types'],
  ['listings', 'Listings'],
  ['entries', 'Entries'],
  ['pictures', 'Pictures and fonts'],
] as const;

function Tried({
  trial,
  replaces,
  onLoad,
  onDrop,
}: {
  trial: Trial;
  replaces: string | undefined;
  onLoad: () => void;
  onDrop: () => void;
}) {
  const number = 'text-right tabular-nums';
  return (
    <section className="mt-2" aria-label="What loading it would do">
      <h3 className="font-semibold">What loading it would do</h3>
      <Table
        label="What loading it would do"
        rows={SORTS}
        keyOf={([key]) => key}
        columns={[
          { key: 'sort', head: '', cell: ([, label]) => label },
          ...(['created', 'changed', 'gone'] as const).map((what) => ({
            key: what,
            head: what[0]!.toUpperCase() + what.slice(1),
            headClassName: '!text-right',
            className: number,
            cell: ([key]: (typeof SORTS)[number]) => trial[key][what],
          })),
        ]}
      />
      <Files files={trial.files} all={trial.entries.created + trial.entries.changed} />
      <Issues issues={trial.findings.map(withPlace)} title="It loads, and this is worth a look" />
      {replaces !== undefined && (
        <p className="mt-2">
          It takes the place of all of {replaces}, with its past, plans and bench; this cannot be
          undone. Save the site as files first.
        </p>
      )}
      <div className="mt-3 flex gap-3">
        <button type="button" className="button button-main" onClick={onLoad}>
          {replaces === undefined ? 'Load this site' : `Replace ${replaces}`}
        </button>
        <button type="button" className="button" onClick={onDrop}>
          Leave it
        </button>
      </div>
    </section>
  );
}

function Files({ files, all }: { files: Trial['files']; all: number }) {
  if (files.length === 0) return null;
  return (
    <details className="mt-2">
      <summary className="cursor-pointer">
        {all > files.length ? `The first ${files.length} files` : 'Files'}
      </summary>
      <ul className="mt-1 max-h-[240px] overflow-auto">
        {files.map(({ file, what }) => (
          <li key={file}>
            <span className="font-mono text-note">{file}</span> {what}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** An issue of a file, its place written before it. */
function withPlace({ path, line, ...issue }: Issue): Issue {
  if (path === undefined) return issue;
  return { ...issue, message: `${path}${line === undefined ? '' : `:${line}`}: ${issue.message}` };
}

function refusedTitle({ length }: Issue[]): string {
  return `Nothing was loaded: ${length === 1 ? 'one problem' : `${length} problems`}`;
}
