'use client';

import { useCallback, useRef, useState } from 'react';
import type { Mapping } from '@/core/intake/mapping.ts';
import type { Issue, Result } from '@/core/issue.ts';
import type { BroughtIn } from '@/server/commands/intake/bring-in.ts';
import type { Staged } from '@/server/uploads/stage-folder.ts';
import { UNREACHABLE, failure } from '../send.ts';
import { carryOut, forget, sendFolder } from '../start/send-folder.ts';
import { newJob } from '../use-attempts.ts';

/** What was sent, as it was read. */
export interface Sent {
  id: string;
  /** What it is called: its folder, or its file. */
  name: string;
  staged: Staged;
}

/** What is asked of what was sent. */
export interface Wanted {
  source: string | null;
  name: string;
  mapping: Mapping;
}

/** How far bringing content in is. */
export interface BringingIn {
  sent: Sent | null;
  /** What is under way, with how much of it is done, 0 to 1; null while nothing is. */
  busy: { words: string; part: number | null; cancel: (() => void) | null } | null;
  /** What a command that may take long is watched by. */
  job: string;
  issues: Issue[];
  /** What trying told, and for what: another mapping has to be tried again. */
  tried: { of: string; done: BroughtIn } | null;
  /** What bringing in did. */
  done: BroughtIn | null;
}

const NOTHING: BringingIn = {
  ...{ sent: null, busy: null, job: '', issues: [], tried: null, done: null },
};

/** Sends a folder or file from elsewhere, has it read, tried and brought in. */
export function useBringIn(): BringingIn & {
  send: (files: readonly File[]) => Promise<void>;
  run: (step: 'try' | 'load', wanted: Wanted) => Promise<boolean>;
  refuse: (issues: Issue[]) => void;
  drop: () => void;
} {
  const [state, setState] = useState<BringingIn>(NOTHING);
  const sending = useRef<AbortController | null>(null);
  const put = (change: Partial<BringingIn>): void => setState((now) => ({ ...now, ...change }));

  const send = useCallback(async (files: readonly File[]): Promise<void> => {
    sending.current?.abort();
    const control = new AbortController();
    sending.current = control;
    const { signal } = control;
    const busy = (words: string, part: number | null): void =>
      put({ busy: { words, part, cancel: () => control.abort() } });
    setState(NOTHING);
    busy('Sending', 0);
    try {
      const tell = ({ sent, total }: { sent: number; total: number }): void =>
        busy('Sending', sent / (total || 1));
      const id = await sendFolder(files, { signal, tell });
      if (!id.ok) return put({ busy: null, issues: id.issues });
      const path = `/api/bring-in/${id.value}/look`;
      const staged = await carryOut<Staged>(path, (step) => busy(step, null), signal).catch(
        (error: unknown) => {
          void forget(id.value);
          throw error;
        },
      );
      if (!staged.ok) return put({ busy: null, issues: staged.issues });
      const sent = { id: id.value, name: nameOf(files), staged: staged.value };
      put({ busy: null, sent });
    } catch {
      setState(NOTHING);
    }
  }, []);
  const run = async (step: 'try' | 'load', wanted: Wanted): Promise<boolean> => {
    if (!state.sent) return false;
    const job = newJob();
    const words = step === 'try' ? 'Working out what it would do' : 'Bringing it in';
    put({ job, issues: [], busy: { words, part: null, cancel: null } });
    const result = await post<BroughtIn>(`/api/bring-in/${state.sent.id}/${step}`, {
      ...wanted,
      job,
    });
    if (!result.ok) put({ busy: null, issues: result.issues });
    else if (step === 'try')
      put({ busy: null, tried: { of: JSON.stringify(wanted), done: result.value } });
    else setState({ ...NOTHING, done: result.value });
    return result.ok;
  };
  const drop = (): void => {
    if (state.sent) void forget(state.sent.id);
    setState(NOTHING);
  };
  const refuse = (issues: Issue[]): void => put({ busy: null, issues });
  return { ...state, send, run, refuse, drop };
}

async function post<T>(path: string, input: object): Promise<Result<T>> {
  try {
    const headers = { 'content-type': 'application/json' };
    const answer = await fetch(path, { method: 'POST', headers, body: JSON.stringify(input) });
    const said = (await answer.json()) as Result<T> & { message?: string };
    if ('ok' in said) return said;
    return failure({ code: 'refused', message: (said as { message: string }).message });
  } catch {
    return failure(UNREACHABLE);
  }
}

/** What was chosen is called: its folder, or the one file. */
function nameOf(files: readonly File[]): string {
  const [first] = files;
  const folder = first?.webkitRelativePath.split('/')[0];
  return (folder || first?.name || 'Content').slice(0, 80);
}
