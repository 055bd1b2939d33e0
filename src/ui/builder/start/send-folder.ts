'use client';

import type { Issue, Result } from '@/core/issue.ts';
import { failure, UNREACHABLE } from '../send.ts';

/** Largest part of a file that is sent at once, and how many files are, in bytes and pieces. */
const MOST_BYTES = 4 * 1024 * 1024;
const MOST_PIECES = 500;

/** How far sending is, in bytes. */
export interface Sent {
  sent: number;
  total: number;
}

interface Piece {
  key: string;
  content: Blob;
}

/** What goes along with sending: who hears how far it is, and what stops it. */
interface Sending {
  tell: (sent: Sent) => void;
  signal: AbortSignal;
}

/**
 * Sends the files of a folder, or one .zip of it, to the server, piece by piece; gives the id they
 * are known by there.
 */
export async function sendFolder(
  files: readonly File[],
  { tell, signal }: Sending,
): Promise<Result<string>> {
  const begun = await post<{ id: string }>('/api/upload', signal);
  if (!begun.ok) return begun;
  const { id } = begun.value;
  const total = files.reduce((sum, { size }) => sum + size, 0);
  let sent = 0;
  for (const batch of batches(files)) {
    const form = new FormData();
    for (const { key, content } of batch) form.append(key, content, 'piece');
    const put = await post<Result<null>>(`/api/upload/${id}`, signal, form);
    const result = put.ok ? put.value : put;
    if (!result.ok) {
      void forget(id);
      return result;
    }
    sent += batch.reduce((sum, { content }) => sum + content.size, 0);
    tell({ sent, total });
  }
  return { ok: true, value: id };
}

/** Throws away what was sent. */
export async function forget(id: string): Promise<void> {
  await fetch(`/api/upload/${id}`, { method: 'DELETE' }).catch(() => undefined);
}

/** Has something done with what was sent, and hears its steps; gives what came of it. */
export async function carryOut<T>(
  path: string,
  tell: (step: string) => void,
  signal?: AbortSignal,
): Promise<Result<T>> {
  try {
    const response = await fetch(path, { method: 'POST', ...(signal ? { signal } : {}) });
    if (!response.ok || !response.body) return failure(await issueOf(response));
    let result: Result<T> | null = null;
    for await (const line of linesOf(response.body)) {
      const said = JSON.parse(line) as { step?: string; result?: Result<T> };
      if (said.step !== undefined) tell(said.step);
      result = said.result ?? result;
    }
    return result ?? failure(UNREACHABLE);
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    return failure(UNREACHABLE);
  }
}

function* batches(files: readonly File[]): Generator<Piece[]> {
  let batch: Piece[] = [];
  let bytes = 0;
  for (const piece of pieces(files)) {
    if (
      batch.length > 0 &&
      (bytes + piece.content.size > MOST_BYTES || batch.length === MOST_PIECES)
    ) {
      yield batch;
      [batch, bytes] = [[], 0];
    }
    batch.push(piece);
    bytes += piece.content.size;
  }
  if (batch.length > 0) yield batch;
}

/** One .zip goes as an archive, anything else by its path in the folder. */
function* pieces(files: readonly File[]): Generator<Piece> {
  const isArchive = files.length === 1 && /\.zip$/i.test(files[0]!.name);
  for (const file of files) {
    const name = isArchive ? '' : ` ${file.webkitRelativePath || file.name}`;
    for (let offset = 0; offset === 0 || offset < file.size; offset += MOST_BYTES)
      yield { key: `${offset}${name}`, content: file.slice(offset, offset + MOST_BYTES) };
  }
}

async function post<T>(path: string, signal: AbortSignal, body?: FormData): Promise<Result<T>> {
  try {
    const response = await fetch(path, { method: 'POST', signal, ...(body ? { body } : {}) });
    if (!response.ok) return failure(await issueOf(response));
    return { ok: true, value: (await response.json()) as T };
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    return failure(UNREACHABLE);
  }
}

async function issueOf(response: Response): Promise<Issue> {
  const said = (await response.json().catch(() => null)) as { message?: string } | null;
  return { code: 'refused', message: said?.message ?? UNREACHABLE.message };
}

async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = body.getReader();
  const decoder = new TextDecoder();
  let rest = '';
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const lines = (rest + decoder.decode(part.value, { stream: true })).split('\n');
    rest = lines.pop()!;
    yield* lines;
  }
}
