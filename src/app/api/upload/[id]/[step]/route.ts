import type { Result } from '@/core/issue.ts';
import { container } from '@/server/process/container.ts';
import { denyLoading } from '@/server/process/deny-loading.ts';

type Params = { params: Promise<{ id: string; step: string }> };

/**
 * Tells what loading a sent folder would do (`try`), or loads it (`load`, with `?replace` where
 * there is a site): a line of JSON for each step, the last with the result. Ends where the
 * browser goes away while it is only tried.
 */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  const denied = await denyLoading(request);
  if (denied) return denied;
  const { id, step } = await params;
  if (step !== 'try' && step !== 'load')
    return Response.json({ message: 'A folder is tried or loaded.' }, { status: 404 });
  const replaces = new URL(request.url).searchParams.has('replace');
  if (step === 'load' && !replaces && container().view.at(Date.now()))
    return Response.json(
      { message: 'There is a site already; say that it is to be replaced.' },
      { status: 409 },
    );
  return new Response(lines(id, step, request.signal), {
    headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' },
  });
}

function lines(id: string, step: 'try' | 'load', signal: AbortSignal): ReadableStream {
  const encoder = new TextEncoder();
  return new ReadableStream({
    async start(stream) {
      const say = (line: object): void => {
        if (!signal.aborted) stream.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      };
      say({ result: await carryOut(id, step, (words) => say({ step: words }), signal) });
      if (!signal.aborted) stream.close();
    },
  });
}

async function carryOut(
  id: string,
  step: 'try' | 'load',
  tell: (step: string) => void,
  signal: AbortSignal,
): Promise<Result<unknown>> {
  const { loads, uploads } = container();
  const folder = await uploads.folder(id, { tell, signal });
  if (!folder.ok) return folder;
  if (step === 'try') return loads.try(folder.value, { tell, signal });
  const loaded = await loads.load(folder.value, { tell });
  if (loaded.ok) uploads.discard(id);
  return loaded;
}
