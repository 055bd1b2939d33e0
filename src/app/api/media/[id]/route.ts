import { ok } from '@/core/issue.ts';
import { WRONG_FORM, withMedia } from '@/server/process/media-arrival.ts';

type Params = { params: Promise<{ id: string }> };

/** How many bytes of a file have arrived. */
export function GET(request: Request, { params }: Params): Promise<Response> {
  return withMedia(request, async ({ incoming }, actor) =>
    incoming.received(actor.id, (await params).id),
  );
}

/** Takes in the piece of a file at `?offset=` (bytes); says how much has arrived then. */
export function POST(request: Request, { params }: Params): Promise<Response> {
  return withMedia(request, async ({ incoming }, actor) => {
    const offset = new URL(request.url).searchParams.get('offset') ?? '';
    if (!/^\d{1,15}$/.test(offset)) return WRONG_FORM;
    const content = new Uint8Array(await request.arrayBuffer());
    return incoming.add(actor.id, (await params).id, { offset: Number(offset), content });
  });
}

/** Throws away what has arrived of a file. */
export function DELETE(request: Request, { params }: Params): Promise<Response> {
  return withMedia(request, async ({ incoming }, actor) => {
    incoming.discard(actor.id, (await params).id);
    return ok(null);
  });
}
