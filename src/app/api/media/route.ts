import { z } from 'zod';
import { WRONG_FORM, withMedia } from '@/server/process/media-arrival.ts';

const announced = z.object({
  name: z.string().min(1).max(1000),
  /** In bytes. */
  size: z.int().min(0).max(1e15),
});

/** Begins to take in a file of the media; gives the id by which its pieces are sent. */
export function POST(request: Request): Promise<Response> {
  return withMedia(request, async ({ incoming }, actor) => {
    const parsed = announced.safeParse(await request.json().catch(() => null));
    return parsed.success ? incoming.begin(actor.id, parsed.data) : WRONG_FORM;
  });
}
