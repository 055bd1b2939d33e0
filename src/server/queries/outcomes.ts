import { z } from 'zod';
import { isWithinYears } from '@/core/time/interval.ts';
import { type Actor, NotPermitted } from '../permit.ts';
import { stepSpec } from '@/core/design-edit/steps.ts';
import { fieldSpec } from '@/core/design/spec.ts';
import { EXAMPLES } from '@/core/style/look-spec.ts';
import { SEEING } from './clock.ts';
import { ADDRESS_KINDS, addressRows } from './addresses.ts';
import { addressTree } from './address-tree.ts';
import { redirectLines } from './redirects.ts';
import { mediaFilters } from '@/core/content/media-filters.ts';
import { contentFilters } from '@/core/content/filters.ts';
import { addressesByHand } from './by-hand.ts';
import { contentRows } from './content.ts';
import { completions } from './completions.ts';
import { conversionOutcome, readersNow } from './conversion.ts';
import { versionChanges, versions } from './versions.ts';
import { newEntry } from './entry.ts';
import { partForm } from './form-type.ts';
import { entryOutcome, retireReach } from './entry-outcome.ts';
import { leadingHere, referenceExample } from './leading-here.ts';
import { listingOutcome } from './listing.ts';
import { mediaFound, mediumDetail } from './media.ts';
import { mostUsed } from './filter-columns.ts';
import { findEntries } from './offers.ts';
import { people } from './people.ts';
import { proposedConditions } from './proposed.ts';
import { purgeLoss } from './purge.ts';
import { reachSoFar } from './reach.ts';
import { sameWord } from './same-word.ts';
import { settingsOutcome } from './settings.ts';
import { styleOutcome } from './style.ts';
import type { SiteView } from './site-view.ts';
import { templateOutcome } from './template-outcome.ts';
import { fieldsOf, typeOutcome } from './type.ts';
import { writtenText } from './view-page.ts';

/** What asking for an outcome gives, as an HTTP answer. */
export interface OutcomeAnswer {
  status: number;
  body: unknown;
}

/** One thing that screens ask while somebody is at work; null where what it is about is gone. */
interface Outcome<S extends z.ZodType = z.ZodType> {
  form: S;
  answer: (view: SiteView, actor: Actor, input: z.output<S>) => unknown;
}

const outcome = <S extends z.ZodType>(form: S, answer: Outcome<S>['answer']): Outcome =>
  ({ form, answer }) as unknown as Outcome;

const at = z.number().int().refine(isWithinYears);
const id = z.string().max(200);
const key = z.string().max(64);
/** Where the clock stands, whether that is in the past, what one sees, and in which language. */
const clock = {
  at,
  past: z.boolean().default(false),
  seeing: z.enum(SEEING).default('published'),
  language: key.nullable().default(null),
};
const path = z.string().startsWith('/').max(3072);
const steps = z.array(stepSpec).max(1000);

const OUTCOMES: Record<string, Outcome> = {
  entry: outcome(
    z.object({
      ...clock,
      id: id.nullable(),
      type: key,
      values: z.record(key, z.unknown()).nullable(),
    }),
    (view, actor, input) => entryOutcome(view, actor, input, input.at, input.seeing),
  ),
  type: outcome(
    z.object({ ...clock, id: key, steps, specimen: id.nullable() }),
    (view, actor, input) => typeOutcome(view, actor, input, input),
  ),
  template: outcome(
    z.object({ ...clock, id: key, steps, specimen: id.nullable() }),
    (view, actor, input) => templateOutcome(view, actor, input, input),
  ),
  sameWord: outcome(z.object({ at, set: key, name: z.string().max(200) }), (view, actor, input) =>
    sameWord(view, actor, input, input.at),
  ),
  fields: outcome(z.object({ at, type: key }), (view, actor, input) =>
    fieldsOf(view, actor, input.type, input.at),
  ),
  listing: outcome(
    z.object({
      ...clock,
      id: key,
      steps,
      find: z.string().max(200).default(''),
      on: z.string().max(200).optional(),
      visit: path.optional(),
    }),
    (view, actor, input) => listingOutcome(view, actor, input, input),
  ),
  proposed: outcome(
    z.object({ ...clock, id: key, steps, entries: z.array(id).min(1).max(50) }),
    (view, actor, input) => proposedConditions(view, actor, input, input),
  ),
  conversion: outcome(
    z.object({ ...clock, part: z.string().max(1000), to: fieldSpec.nullable() }),
    (view, actor, input) => conversionOutcome(view, actor, input, input),
  ),
  example: outcome(z.object({ at, type: key, field: key }), (view, actor, input) =>
    referenceExample(view, actor, input, input.at),
  ),
  readers: outcome(z.object({ ...clock, part: z.string().max(1000) }), (view, actor, input) =>
    readersNow(view, actor, input, input),
  ),
  style: outcome(
    z.object({ ...clock, steps, page: z.literal(EXAMPLES).or(path) }),
    (view, actor, input) => styleOutcome(view, actor, input, input),
  ),
  settings: outcome(z.object({ ...clock, steps }), (view, actor, input) =>
    settingsOutcome(view, actor, input, input),
  ),
  reach: outcome(
    z.object({
      at,
      steps: steps.default([]),
      edits: z.array(z.int()).max(1000).default([]),
      drafts: z.array(id).max(1000).default([]),
    }),
    (view, actor, input) => reachSoFar(view, actor, input),
  ),
  addresses: outcome(
    z.object({
      ...clock,
      asked: z.object({
        search: z.string().max(200),
        kind: z.enum(ADDRESS_KINDS).nullable(),
        type: key.nullable(),
        language: key.nullable().default(null),
      }),
      from: z.int().min(0).max(1e9),
    }),
    (view, actor, input) => addressRows(view, actor, input, input.asked, input.from),
  ),
  addressTree: outcome(z.object({ ...clock, under: z.string().max(1100) }), (view, actor, input) =>
    addressTree(view, actor, input, input.under),
  ),
  redirects: outcome(
    z.object({
      at,
      given: z.union([
        z.object({ csv: z.string().max(900_000) }),
        z.object({
          lines: z
            .array(
              z.object({
                from: z.string().max(3072),
                to: z.string().max(4096),
                status: z.int().optional(),
                prefix: z.boolean().optional(),
              }),
            )
            .max(1000),
        }),
      ]),
    }),
    (view, actor, input) => redirectLines(view, actor, input.given, input.at),
  ),
  leading: outcome(z.object({ at, id, after: z.string().max(1000) }), (view, actor, input) =>
    leadingHere(view, actor, input.id, input.at),
  ),
  byHand: outcome(z.object({ at, id, after: z.string().max(1000) }), (view, actor, input) =>
    addressesByHand(view, actor, input.id, input.at),
  ),
  rows: outcome(
    z.object({ at, filters: contentFilters, from: z.int().min(0).max(1e9) }),
    (view, actor, input) => contentRows(view, actor, input),
  ),
  form: outcome(
    z.object({ at, type: key }),
    (view, actor, input) => newEntry(view, actor, input.type, input.at)?.type.fields ?? [],
  ),
  part: outcome(
    z.object({ at, type: key, values: z.record(key, z.unknown()), entry: id.nullable() }),
    (view, actor, input) => partForm(view, actor, input, input.at),
  ),
  versions: outcome(z.object({ id, newest: z.int().nullable() }), (view, actor, input) =>
    versions(view, actor, input.id),
  ),
  versionChanges: outcome(
    z.object({ at, id, before: z.int(), after: z.int() }),
    (view, actor, input) => versionChanges(view, actor, input, input.at),
  ),
  media: outcome(
    z.object({ at: at.nullable(), from: z.int().min(0).max(1e9), filters: mediaFilters }),
    (view, actor, input) => mediaFound(view, actor, input),
  ),
  medium: outcome(z.object({ at: at.nullable(), id }), (view, actor, input) =>
    mediumDetail(view, actor, input.id, input.at),
  ),
  used: outcome(
    z.object({ at, type: key.nullable(), field: z.string().max(80) }),
    (view, actor, input) => mostUsed(view, actor, input, input.at),
  ),
  people: outcome(z.object({ at }), (view, actor) => people(view, actor)),
  retire: outcome(z.object({ at, id }), (view, actor, input) =>
    retireReach(view, actor, input.id, input.at),
  ),
  complete: outcome(
    z.object({
      ...clock,
      text: z.string().max(10_000),
      caret: z.int().min(0).max(10_000),
      isAddress: z.boolean(),
      type: key.nullable(),
      inFrame: z.boolean(),
      over: z.array(z.string().max(300)).max(8),
      specimen: id.nullable(),
    }),
    (view, actor, input) => completions(view, actor, input, input),
  ),
  written: outcome(
    z.object({ at, entry: id, field: key, language: key.nullable() }),
    (view, actor, input) => writtenText(view, actor, input, input.at),
  ),
  purge: outcome(z.object({ id }), (view, actor, input) => purgeLoss(view, actor, input.id)),
  entries: outcome(
    z.object({
      at,
      types: z.array(key).max(300).nullable(),
      words: z.string().max(200),
      without: id.nullable(),
    }),
    (view, actor, input) => findEntries(view, actor, input, input.at),
  ),
};

/** What unsaved values, or an unsaved setting, would make of the site. Writes nothing. */
export function answerOutcome(
  view: SiteView,
  actor: Actor,
  what: string,
  input: unknown,
): OutcomeAnswer {
  if (!Object.hasOwn(OUTCOMES, what))
    return { status: 404, body: { message: 'There is no such outcome.' } };
  const { form, answer } = OUTCOMES[what]!;
  const parsed = form.safeParse(input);
  if (!parsed.success)
    return { status: 400, body: { message: 'The request is not of the right form.' } };
  try {
    const body = answer(view, actor, parsed.data);
    return body === null
      ? { status: 404, body: { message: 'This is no longer there.' } }
      : { status: 200, body };
  } catch (error) {
    if (error instanceof NotPermitted) return { status: 403, body: { message: error.message } };
    throw error;
  }
}
