'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { Issue } from '@/core/issue.ts';
import type { Arrived } from '@/server/process/media-arrival.ts';
import { sendFile } from './send-file.ts';

/** So many files are sent side by side. */
const AT_ONCE = 2;

/** A file on its way. */
export interface SentFile {
  key: number;
  file: File;
  /** The medium in whose place it comes; null for a new one. */
  replaces: string | null;
  state: 'waiting' | 'sending' | 'unreachable' | 'looked at' | 'done' | 'refused' | 'cancelled';
  /** In bytes. */
  received: number;
  issues: Issue[];
  /** What it is known by on the server. */
  upload: { id: string | null };
  arrived: Arrived | null;
  /** Whether it was chosen by itself. */
  isAlone: boolean;
}

/** Files that are being sent, and what can be done with them. */
export interface SendingFiles {
  files: readonly SentFile[];
  send: (files: Iterable<File>, replaces?: string | null) => void;
  cancel: (key: number) => void;
  again: (key: number) => void;
  /** Forgets those that are done, refused or cancelled. */
  clear: () => void;
}

let keys = 0;

/** Sends files to the media, two at a time; `onArrived` hears of each, and whether it came alone. */
export function useSending(onArrived: (arrived: Arrived, isAlone: boolean) => void): SendingFiles {
  const [files, setFiles] = useState<SentFile[]>([]);
  const stops = useRef(new Map<number, AbortController>());
  const heard = useRef(onArrived);
  useEffect(() => void (heard.current = onArrived), [onArrived]);

  const put = useCallback((key: number, change: Partial<SentFile>): void => {
    setFiles((all) => all.map((f) => (f.key === key ? { ...f, ...change } : f)));
  }, []);
  const run = useCallback(
    async ({ key, file, replaces, upload, isAlone }: SentFile): Promise<void> => {
      const stop = new AbortController();
      stops.current.set(key, stop);
      const tell = (received: number, waits: boolean): void => {
        const state = waits ? 'unreachable' : received === file.size ? 'looked at' : 'sending';
        put(key, { received, state });
      };
      try {
        const kept = replaces === null ? null : { replaces };
        const result = await sendFile(file, { tell, signal: stop.signal, upload, kept });
        if (!result.ok) put(key, { state: 'refused', issues: result.issues });
        else {
          put(key, { state: 'done', arrived: result.value });
          heard.current(result.value, isAlone);
        }
      } catch {
        put(key, { state: 'cancelled' });
      } finally {
        stops.current.delete(key);
      }
    },
    [put],
  );
  useEffect(() => {
    const free = AT_ONCE - stops.current.size;
    const next = files.filter((f) => f.state === 'waiting' && !stops.current.has(f.key));
    for (const file of next.slice(0, Math.max(0, free))) void run(file);
  }, [files, run]);
  useWarning(files.some(isUnderway));

  const send = useCallback((given: Iterable<File>, replaces: string | null = null): void => {
    const chosen = [...given];
    const added = chosen.map((file): SentFile => ({
      ...{ key: (keys += 1), file, replaces, isAlone: chosen.length === 1 },
      ...{ state: 'waiting', received: 0, issues: [], upload: { id: null }, arrived: null },
    }));
    setFiles((all) => [...all, ...added]);
  }, []);
  const cancel = useCallback(
    (key: number): void => {
      stops.current.get(key)?.abort();
      put(key, { state: 'cancelled' });
    },
    [put],
  );
  const again = useCallback(
    (key: number): void => put(key, { state: 'waiting', issues: [] }),
    [put],
  );
  const clear = useCallback(() => setFiles((all) => all.filter(isUnderway)), []);
  return { files, send, cancel, again, clear };
}

/** Whether a file is still on its way. */
export function isUnderway({ state }: SentFile): boolean {
  return state !== 'done' && state !== 'refused' && state !== 'cancelled';
}

/** Asks before the page is left while files are on their way. */
function useWarning(isBusy: boolean): void {
  useEffect(() => {
    if (!isBusy) return;
    const ask = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [isBusy]);
}
