import { takeFont, takeIn, withMedia } from '@/server/process/media-arrival.ts';

type Params = { params: Promise<{ id: string }> };

/**
 * Keeps a file that has arrived whole, as a new medium; with `?replaces=` in the place of one, with
 * `?as=font` among the fonts of the style.
 */
export function POST(request: Request, { params }: Params): Promise<Response> {
  return withMedia(request, async (parts, actor) => {
    const { searchParams: asked } = new URL(request.url);
    const { id } = await params;
    if (asked.get('as') === 'font') return takeFont(parts, actor, id);
    return takeIn(parts, actor, id, asked.get('replaces'));
  });
}
