'use client';

import type { Result } from '@/core/issue.ts';
import type { Arrived } from '@/server/process/media-arrival.ts';
import { failure, UNREACHABLE } from '../send.ts';

/** So much is sent at once, in bytes: what is broken off costs no more. */
const PIECE_BYTES = 1024 * 1024;
/** Waits between attempts while the server cannot be reached, ms. */
const WAITS_MS = [500, 1000, 2000, 4000, 8000, 15_000];

/** What goes along with sending a file. */
interface Sending {
  /** Hears how many bytes have arrived, and that the server cannot be reached at the moment. */
  tell: (received: number, waits: boolean) => void;
  signal: AbortSignal;
  /** What it is known by on the server, once that has heard of it: sending goes on with that. */
  upload: { id: string | null };
  /** What it is kept as: the medium in whose place it comes, or a font; a new medium without. */
  kept?: { replaces: string } | { as: 'font' } | null;
}

/**
 * Sends a file to the media, piece by piece; where the connection breaks it goes on with what has
 * arrived. @throws AbortError where it is cancelled
 */
export async function sendFile<T = Arrived>(
  file: File,
  { tell, signal, upload, kept = null }: Sending,
): Promise<Result<T>> {
  const { size } = file;
  const begun = await begin(file, { tell, signal, upload });
  if (!begun.ok) return begun;
  const path = `/api/media/${upload.id}`;
  signal.addEventListener('abort', () => {
    upload.id = null;
    void fetch(path, { method: 'DELETE' }).catch(() => undefined);
  });
  let { received } = begun.value;
  while (received < size) {
    const content = file.slice(received, received + PIECE_BYTES);
    const put = await sendPiece(path, { offset: received, content, signal });
    const done = put ?? (await whatArrived(path, signal, () => tell(received, true)));
    if (!done.ok) return done;
    received = done.value.received;
    tell(received, false);
  }
  const query = kept ? `?${new URLSearchParams(kept).toString()}` : '';
  const waits = (): void => tell(size, true);
  return reached<T>(`${path}/done${query}`, { method: 'POST', signal }, waits);
}

/** Tells the server of a file, or asks how much of it has arrived where it knows of it. */
async function begin(
  { name, size }: File,
  { tell, signal, upload }: Sending,
): Promise<Result<{ received: number }>> {
  const waits = (): void => tell(0, true);
  const known = upload.id && (await whatArrived(`/api/media/${upload.id}`, signal, waits));
  if (known && known.ok) return known;
  const asked = { method: 'POST', body: JSON.stringify({ name, size }), signal };
  const begun = await reached<string>('/api/media', asked, waits);
  if (!begun.ok) return begun;
  upload.id = begun.value;
  return { ok: true, value: { received: 0 } };
}

/** Sends a piece; null where it is not known whether it arrived. */
async function sendPiece(
  path: string,
  { offset, content, signal }: { offset: number; content: Blob; signal: AbortSignal },
): Promise<Result<{ received: number }> | null> {
  try {
    const body = { method: 'POST', body: content, signal };
    return await answerOf(await fetch(`${path}?offset=${offset}`, body));
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    return null;
  }
}

function whatArrived(
  path: string,
  signal: AbortSignal,
  waits: () => void,
): Promise<Result<{ received: number }>> {
  return reached(path, { signal }, waits);
}

/** An answer, asked for again while the server cannot be reached. */
async function reached<T>(
  path: string,
  init: RequestInit & { signal: AbortSignal },
  waits: () => void,
): Promise<Result<T>> {
  for (const wait of [...WAITS_MS, null]) {
    try {
      return await answerOf(await fetch(path, init));
    } catch (error) {
      if ((error as Error).name === 'AbortError') throw error;
      if (wait === null) break;
      waits();
      await pause(wait, init.signal);
    }
  }
  return failure({ ...UNREACHABLE, fix: 'Press “Go on” once the connection is back.' });
}

async function answerOf<T>(response: Response): Promise<Result<T>> {
  const said = (await response.json().catch(() => null)) as object | null;
  if (said && 'ok' in said) return said as Result<T>;
  const { message } = (said ?? {}) as { message?: string };
  return failure({ code: 'refused', message: message ?? UNREACHABLE.message });
}

function pause(wait: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, wait);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      reject(new DOMException('cancelled', 'AbortError'));
    });
  });
}
