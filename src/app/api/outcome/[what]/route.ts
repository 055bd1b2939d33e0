import { z } from 'zod';
import { container } from '@/server/container.ts';

const clock = { at: z.number(), seeing: z.enum(['published', 'draft']).default('published') };
const FORMS = {
  entry: z.object({
    ...clock,
    id: z.string().nullable(),
    type: z.string(),
    values: z.record(z.string(), z.unknown()).nullable(),
  }),
  type: z.object({ ...clock, key: z.string(), spec: z.unknown(), specimen: z.string().nullable() }),
  listing: z.object({
    ...clock,
    key: z.string(),
    spec: z.unknown(),
    find: z.string().max(200).default(''),
  }),
};

/** What unsaved values, or an unsaved setting, would make of the site as of an instant. Writes nothing. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ what: string }> },
): Promise<Response> {
  const { auth, reader } = container();
  const actor = await (await auth).actor(request.headers);
  if (!actor) return Response.json({ message: 'Sign in again.' }, { status: 401 });
  const { what } = await params;
  if (!(what in FORMS))
    return Response.json({ message: 'There is no such outcome.' }, { status: 404 });
  const parsed = FORMS[what as keyof typeof FORMS].safeParse(
    await request.json().catch(() => null),
  );
  if (!parsed.success)
    return Response.json({ message: 'The request is not of the right form.' }, { status: 400 });
  const outcome = await outcomeOf(what, parsed.data);
  return outcome === null
    ? Response.json({ message: 'This is no longer there.' }, { status: 404 })
    : Response.json(outcome);

  function outcomeOf(name: string, data: unknown): Promise<unknown> {
    if (name === 'entry') {
      const input = data as z.output<typeof FORMS.entry>;
      return reader.ask('entryOutcome', actor!, input, input.at, input.seeing);
    }
    if (name === 'type') {
      const input = data as z.output<typeof FORMS.type>;
      return reader.ask(
        'typeOutcome',
        actor!,
        { ...input, spec: input.spec },
        input.at,
        input.seeing,
      );
    }
    const input = data as z.output<typeof FORMS.listing>;
    return reader.ask(
      'listingOutcome',
      actor!,
      { ...input, spec: input.spec },
      input.at,
      input.seeing,
    );
  }
}
