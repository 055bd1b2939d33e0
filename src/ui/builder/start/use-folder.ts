'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useRef, useState } from 'react';
import type { Issue, Result } from '@/core/issue.ts';
import type { Trial } from '@/server/commands/load/trial.ts';
import { carryOut, forget, sendFolder } from './send-folder.ts';

/** How far loading a folder is. */
export type FolderState =
  | { is: 'none'; issues: Issue[]; said: string | null }
  | { is: 'busy'; words: string; part: number | null; cancel: (() => void) | null }
  | { is: 'tried'; id: string; trial: Trial };

const NONE: Extract<FolderState, { is: 'none' }> = { is: 'none', issues: [], said: null };

/** Sends a folder, tells what loading it would do, and loads it when told to. */
export function useFolder(): {
  state: FolderState;
  send: (files: readonly File[]) => Promise<void>;
  load: (id: string, replaces: boolean) => Promise<void>;
  drop: (id: string) => void;
} {
  const router = useRouter();
  const [state, setState] = useState<FolderState>(NONE);
  const sending = useRef<AbortController | null>(null);
  const send = useCallback(async (files: readonly File[]): Promise<void> => {
    sending.current?.abort();
    const control = new AbortController();
    sending.current = control;
    const cancel = (): void => control.abort();
    const { signal } = control;
    const busy = (words: string, part: number | null): void =>
      setState({ is: 'busy', words, part, cancel });
    busy('Sending', 0);
    try {
      const id = await sendFolder(files, {
        signal,
        tell: ({ sent, total }) => busy(`Sending ${megabytes(sent, total)}`, sent / (total || 1)),
      });
      if (!id.ok) return setState({ ...NONE, issues: id.issues });
      const trial = await carryOut<Trial>(
        `/api/upload/${id.value}/try`,
        (step) => busy(step, null),
        signal,
      ).catch((error: unknown) => {
        void forget(id.value);
        throw error;
      });
      setState(settled(trial, (value) => ({ is: 'tried', id: id.value, trial: value })));
    } catch {
      setState({ ...NONE, said: 'Cancelled; nothing was changed.' });
    }
  }, []);
  const load = useCallback(
    async (id: string, replaces: boolean): Promise<void> => {
      const busy = (words: string): void =>
        setState({ is: 'busy', words, part: null, cancel: null });
      busy('Loading');
      const path = `/api/upload/${id}/load${replaces ? '?replace' : ''}`;
      const loaded = await carryOut<{ entries: number }>(path, busy);
      const words = (count: number): string => `Loaded ${count} entries.`;
      setState(settled(loaded, ({ entries }) => ({ ...NONE, said: words(entries) })));
      router.refresh();
    },
    [router],
  );
  const drop = useCallback((id: string): void => {
    void forget(id);
    setState(NONE);
  }, []);
  return { state, send, load, drop };
}

function settled<T>(result: Result<T>, then: (value: T) => FolderState): FolderState {
  return result.ok ? then(result.value) : { ...NONE, issues: result.issues };
}

function megabytes(sent: number, total: number): string {
  const of = (bytes: number): string => (bytes / 1024 ** 2).toFixed(1);
  return `${of(sent)} of ${of(total)} MB`;
}
