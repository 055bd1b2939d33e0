import { workerData } from 'node:worker_threads';
import { z } from 'zod';
import { openDatabase } from '../db/connection.ts';
import { type QueryName, QUERIES, isQuery } from '../queries/index.ts';
import { type OutcomeAnswer, answerOutcome } from '../queries/outcomes.ts';
import { SiteView } from '../queries/site-view.ts';
import type { Actor } from '../permit.ts';
import { answerQuestions } from './answering.ts';
import { parseInput } from './json-input.ts';
import { answerText, isAboutText } from './rich-texts.ts';

/**
 * A query for the reader thread: by name with what it takes after the view, or as somebody sent
 * it.
 */
export type ReaderQuestion =
  { name: QueryName; input: unknown[] } | { outcome: string; actor: Actor; text: string };

/** What came out, or that the query failed. */
export type ReaderAnswer = { value: unknown } | { failed: string };

const question = z.union([
  z.strictObject({ name: z.string().refine(isQuery), input: z.array(z.unknown()) }),
  z.strictObject({ outcome: z.string(), actor: z.unknown(), text: z.string() }),
]);

const { database } = workerData as { database: string };
const connection = openDatabase(database, { readonly: true });
const view = new SiteView(connection);

answerQuestions<ReaderQuestion, ReaderAnswer>(answer, () => connection.close());

function answer(asked: ReaderQuestion): ReaderAnswer {
  try {
    question.parse(asked);
    if ('outcome' in asked) return { value: outcome(asked) };
    const query = QUERIES[asked.name] as (v: SiteView, ...rest: unknown[]) => unknown;
    return { value: query(view, ...asked.input) };
  } catch (error) {
    return { failed: error instanceof Error ? (error.stack ?? error.message) : String(error) };
  }
}

function outcome({
  outcome: what,
  actor,
  text,
}: Extract<ReaderQuestion, { outcome: string }>): OutcomeAnswer {
  const read = parseInput(text);
  if (!read.ok) return { status: 400, body: { message: read.issues[0]!.message } };
  const answer = isAboutText(what) ? answerText : answerOutcome;
  return answer(view, actor, what, read.value);
}
