import { takeFont, takeIn, withMedia } from '@/server/process/media-arrival.ts';

type Params = { params: Promise<{ id: string }> };

/**
 * Keeps a file that has arrived whole, as a new medium; with `?replaces=` in the place of one, with
 * `?as=font` among the fonts of the style.
 */
export async function POST(request: Request, { params }: Params): Promise<Response> {
  const { id } = await params;
  const asked = new URL(request.url).searchParams;
  if (asked.get('as') === 'font')
    return withMedia(request, (parts, actor) => takeFont(parts, actor, id), 'change-design');
  return withMedia(request, (parts, actor) => takeIn(parts, actor, id, asked.get('replaces')));
}
