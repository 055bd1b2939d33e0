import type { Result } from '@/core/issue.ts';

/**
 * An answer of lines of JSON: one for each step of long work, the last with its result. It ends
 * where whoever asked goes away.
 */
export function ndjson(
  signal: AbortSignal,
  work: (tell: (step: string) => void, signal: AbortSignal) => Promise<Result<unknown>>,
): Response {
  const encoder = new TextEncoder();
  const lines = new ReadableStream({
    async start(stream) {
      const say = (line: object): void => {
        if (!signal.aborted) stream.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      say({ result: await work((step) => say({ step }), signal) });
      if (!signal.aborted) stream.close();
    },
  });
  return new Response(lines, {
    headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' },
  });
}
