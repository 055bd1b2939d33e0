import type { Result } from '@/core/issue.ts';
import { container } from '@/server/process/container.ts';
import { ndjson } from '@/server/process/ndjson.ts';
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
  return ndjson(request.signal, (tell, signal) => carryOut(id, step, tell, signal));
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
