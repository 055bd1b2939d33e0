import type { Result } from '@/core/issue.ts';
import type { CommandResult } from '../commands/index.ts';
import type { Actor } from '../permit.ts';
import type { OutcomeAnswer } from '../queries/outcomes.ts';
import type { Container } from './container.ts';
import type { ReadText } from './rich-texts.ts';

const FORMS: Readonly<Record<string, 'markdown' | 'json'>> = {
  'text/markdown': 'markdown',
  'application/json': 'json',
};

/** A text as a program sends it. */
export interface SentText {
  /** Id of the entry, and key or id of its field. */
  entry: string;
  field: string;
  /** The media type it is sent as. */
  type: string;
  source: string;
  job: string;
}

/** Saves a new version of an entry with a text that was sent; nothing where anything is wrong. */
export async function takeText(
  { reader, long }: Pick<Container, 'reader' | 'long'>,
  actor: Actor,
  { entry, field, type, source, job }: SentText,
): Promise<OutcomeAnswer> {
  const form = FORMS[type.split(';', 1)[0]!.trim().toLowerCase()];
  if (!form) return refusal(415, 'A text is sent as text/markdown or application/json.');
  const at = Date.now();
  const read = await reader.outcome(
    'textSent',
    actor,
    JSON.stringify({ at, entry, field, form, source }),
  );
  if (read.status !== 200) return read;
  const found = read.body as { field: string; read: ReadText };
  if ('faults' in found.read) return { status: 422, body: { faults: found.read.faults } };
  const what = { do: 'setValue', field: found.field, value: found.read.doc };
  const input = JSON.stringify({ what, which: { ids: [entry] } });
  const result = (await long.run(
    'changeEntries',
    actor,
    input,
    job,
  )) as CommandResult<'changeEntries'>;
  return answerOf(result);
}

function answerOf(result: Result<{ done: number; refused: { message: string }[] }>): OutcomeAnswer {
  if (!result.ok) return refusal(422, result.issues[0]!.message);
  const [refused] = result.value.refused;
  if (refused) return refusal(422, refused.message);
  return { status: 200, body: { saved: result.value.done > 0 } };
}

function refusal(status: number, words: string): OutcomeAnswer {
  return { status, body: { faults: [{ at: '/', words }] } };
}
