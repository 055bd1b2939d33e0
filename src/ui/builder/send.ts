'use client';

import type { Issue, Result } from '@/core/issue.ts';
import type { CommandInput, CommandName, CommandResult } from '@/server/commands/index.ts';

/** Said where no answer comes. */
export const UNREACHABLE: Issue = {
  code: 'unreachable',
  message: 'The server cannot be reached; nothing was changed.',
  fix: 'Your words are kept in this browser. Try again in a moment.',
};

/**
 * Has a command carried out; whatever goes wrong on the way comes back as an issue. `job` is what
 * it is watched by, where it may take long.
 */
export async function command<N extends CommandName>(
  name: N,
  input: CommandInput<N>,
  job?: string,
): Promise<CommandResult<N>> {
  const watched = job === undefined ? '' : `?job=${encodeURIComponent(job)}`;
  return (await posted(`/api/command/${name}${watched}`, input)) as CommandResult<N>;
}

/** Loads the demo where there is no site. */
export function openDemo(): Promise<Result<{ entries: number }>> {
  return posted('/api/demo', {});
}

/** Sends something to a path that answers with a result; faults on the way are issues, too. */
export async function posted<T>(path: string, input: unknown): Promise<Result<T>> {
  const answer = await post(path, input);
  if (answer === null) return failure(UNREACHABLE);
  const { body } = answer;
  if (isResult(body)) return body as Result<T>;
  return failure({ ...UNREACHABLE, code: 'refused', ...wordsOf(body) });
}

/**
 * Asks what something would come to; null where the server cannot be reached or refuses, with the
 * words.
 */
export async function ask<T>(
  what: string,
  input: unknown,
  signal?: AbortSignal,
): Promise<{ value: T } | { problem: string }> {
  const answer = await post(`/api/outcome/${what}`, input, signal);
  if (answer === null)
    return {
      problem:
        'The server cannot be reached; what you see is as of before. Your words are kept here.',
    };
  return answer.ok ? { value: answer.body as T } : { problem: wordsOf(answer.body).message };
}

async function post(
  path: string,
  input: unknown,
  signal?: AbortSignal,
): Promise<{ ok: boolean; body: unknown } | null> {
  try {
    const response = await fetch(path, {
      method: 'POST',
      body: JSON.stringify(input),
      headers: { 'content-type': 'application/json' },
      ...(signal ? { signal } : {}),
    });
    const text = await response.text();
    return { ok: response.ok, body: parse(text) };
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    return null;
  }
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return { message: text.trim() }; // a refusal in plain words, of a request that is too large say
  }
}

function wordsOf(body: unknown): Pick<Issue, 'message'> {
  const { message } = (body ?? {}) as { message?: unknown };
  return { message: typeof message === 'string' && message ? message : UNREACHABLE.message };
}

function isResult(body: unknown): body is Result<unknown> {
  return typeof (body as { ok?: unknown } | null)?.ok === 'boolean';
}

/** A refusal by one issue. */
export function failure(issue: Issue): Result<never> {
  return { ok: false, issues: [issue] };
}
