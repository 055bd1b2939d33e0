import { z } from 'zod';
import { mappingSpec } from '@/core/intake/mapping.ts';
import { type Result, refused } from '@/core/issue.ts';
import { WRONG_FORM, withMedia } from '@/server/process/media-arrival.ts';
import { ndjson } from '@/server/process/ndjson.ts';
import { type Container, container } from '@/server/process/container.ts';
import type { Actor } from '@/server/permit.ts';
import { keepStaged } from '@/server/uploads/keep-staged.ts';

type Params = { params: Promise<{ id: string; step: string }> };

const wanted = z.object({
  source: z.string().max(64).nullable(),
  name: z.string().max(200),
  mapping: mappingSpec,
  job: z.string().max(64),
});

/**
 * Reads what was sent (`look`: a line of JSON for each step, the last with the result), tells what
 * bringing it in would do (`try`), or brings it in (`load`).
 */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  const { id, step } = await params;
  if (step === 'look') return look(request, id);
  if (step !== 'try' && step !== 'load')
    return Response.json({ message: 'It is looked at, tried or loaded.' }, { status: 404 });
  return withMedia(request, async (parts, actor) => {
    const parsed = wanted.safeParse(await request.json().catch(() => null));
    if (!parsed.success) return WRONG_FORM;
    return bring(parts, actor, { id, ...parsed.data, dry: step === 'try' });
  });
}

async function look(request: Request, id: string): Promise<Response> {
  const denied = await withMedia(request, () => ({ ok: true, value: null }));
  if (!denied.ok) return denied;
  return ndjson(request.signal, async (tell, signal) => {
    const { uploads, bringIns } = container();
    const folder = await uploads.folder(id, { tell, signal });
    if (!folder.ok) return folder;
    const staged = await bringIns.look(id, folder.value, { tell, signal });
    if (!staged.ok || signal.aborted) uploads.discard(id);
    return staged;
  });
}

async function bring(
  { bringIns, uploads, long }: Container,
  actor: Actor,
  { id, job, dry, ...input }: z.output<typeof wanted> & { id: string; dry: boolean },
): Promise<Result<unknown>> {
  const stage = bringIns.stageOf(id);
  if (stage === null) return refused(GONE);
  try {
    if (!dry) await keepStaged(stage, bringIns.dataFolder);
  } catch (error) {
    const { code = 'unknown reason' } = error as NodeJS.ErrnoException;
    const message = `The pictures cannot be kept on the server (${code}); nothing was changed.`;
    return refused({ code: 'not-kept', message, fix: 'Make room on its disk, then try again.' });
  }
  const result = await long.run('bringIn', actor, JSON.stringify({ ...input, stage, dry }), job);
  if (result.ok && !dry) {
    bringIns.discard(id);
    uploads.discard(id);
  }
  return result;
}

const GONE = {
  code: 'upload-gone',
  message: 'What was sent is not here any more.',
  fix: 'Choose it again.',
};
