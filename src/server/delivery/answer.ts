import type { ServerResponse } from 'node:http';

/** The policy of answers that are no pages: nothing is loaded, nothing runs. */
export const CLOSED_POLICY = "default-src 'none'; sandbox";

/** A short answer in plain words. */
export function plain(
  response: ServerResponse,
  status: number,
  words: string,
  headers: Record<string, string> = {},
): void {
  response
    .writeHead(status, {
      'content-type': 'text/plain; charset=utf-8',
      'x-content-type-options': 'nosniff',
      'content-security-policy': CLOSED_POLICY,
      'cache-control': 'no-store',
      ...headers,
    })
    .end(`${words}\n`);
}
