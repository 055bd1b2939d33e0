import { takeIn, withMedia } from '@/server/process/media-arrival.ts';

type Params = { params: Promise<{ id: string }> };

/** Keeps a file that has arrived whole, as a new medium; with `?replaces=` in the place of one. */
export function POST(request: Request, { params }: Params): Promise<Response> {
  return withMedia(request, async (parts, actor) => {
    const replaces = new URL(request.url).searchParams.get('replaces');
    return takeIn(parts, actor, (await params).id, replaces);
  });
}
