import { z } from 'zod';
import { checkMentions } from '@/core/design/check-values.ts';
import { withInner } from '@/core/design/fields-within.ts';
import type { Field } from '@/core/design/field.ts';
import { notLetInAnew } from '@/core/design/let-in.ts';
import type { Role } from '@/core/design/roles.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Given } from '@/core/design/kinds/definition.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import { checkRichText, type RichNode } from '@/core/rich-text/index.ts';
import type { Issue } from '@/core/issue.ts';
import { isWithinYears } from '@/core/time/interval.ts';
import { type Actor, NotPermitted, SITE, permit } from '../permit.ts';
import { markdownToRichText } from '../files/markdown.ts';
import { TooMuch } from '../files/markdown-world.ts';
import { markdownOf } from '../saving/printed-values.ts';
import type { OutcomeAnswer } from '../queries/outcomes.ts';
import { newestValues } from '../queries/preview.ts';
import type { SiteView } from '../queries/site-view.ts';
import { storedWorld } from '../store/form-values.ts';
import { statement } from '../store/statement.ts';
import { parseInput } from './json-input.ts';

/** Something that keeps a text from being taken, and where: a JSON Pointer, or a line. */
interface TextFault {
  at: string;
  words: string;
}

/** A text as it is stored, or all that is wrong with it. */
export type ReadText = { doc: RichNode | null } | { faults: TextFault[] };

const where = {
  at: z.number().int().refine(isWithinYears),
  /** Ids of a type and of one of its fields, those of groups included. */
  type: z.string().max(64),
  field: z.string().max(64),
};
const written = z.strictObject({ ...where, doc: z.unknown() });
const toRead = z.strictObject({
  ...where,
  /** The text in whose place it comes: what stands there may stay. */
  before: z.unknown().optional(),
  form: z.enum(['markdown', 'json']),
  source: z.string(),
});

const sent = z.strictObject({
  at: where.at,
  entry: z.string().max(200),
  field: z.string().max(64),
  form: toRead.shape.form,
  source: z.string(),
});

/** What is asked of texts, by name. */
const QUESTIONS: Record<string, (view: SiteView, role: Role, input: unknown) => unknown> = {
  textSource: (view, _, input) => {
    const { doc, ...place } = written.parse(input);
    const found = fieldAt(view, place);
    return found && sourceOf(found, doc);
  },
  textRead: (view, role, input) => {
    const { form, source, before, ...place } = toRead.parse(input);
    const found = fieldAt(view, place);
    const stood = checkRichText(before) === null ? before : null;
    return found && readText(view, { ...found, role, stood: () => stood }, { form, source });
  },
  textSent: (view, role, input) => {
    const { at, entry, field, form, source } = sent.parse(input);
    const sql = 'SELECT type FROM entry WHERE id = ? AND deleted IS NULL';
    const type = statement<string>(view.connection, sql).pluck().get(entry);
    const found = type === undefined ? null : fieldAt(view, { at, type, field });
    if (!found) return null;
    const { id } = found.field;
    const stood = (): unknown => newestValues(view, found.type, entry, at)?.[id];
    return { field: id, read: readText(view, { ...found, role, stood }, { form, source }) };
  },
};

/** Whether a question is about a text. */
export function isAboutText(what: string): boolean {
  return Object.hasOwn(QUESTIONS, what);
}

/** Answers a question about a text: its source in both forms, or what a source is. */
export function answerText(
  view: SiteView,
  actor: Actor,
  what: string,
  input: unknown,
): OutcomeAnswer {
  try {
    permit(actor, 'write-entry', SITE);
    const body = QUESTIONS[what]!(view, actor.role, input);
    if (body === null) return { status: 404, body: { message: 'There is no such rich text.' } };
    return { status: 200, body };
  } catch (error) {
    if (error instanceof NotPermitted) return { status: 403, body: { message: error.message } };
    if (error instanceof z.ZodError)
      return { status: 400, body: { message: 'The request is not of the right form.' } };
    throw error;
  }
}

/** A rich text field, and how its values are read. */
interface Found {
  type: ContentType;
  field: Field;
  zone: string;
  language: string;
  at: number;
}

/** A rich text field of a type as of an instant; null where there is none. */
function fieldAt(
  view: SiteView,
  { at, type, field: id }: { at: number; type: string; field: string },
): Found | null {
  const site = view.at(at)?.site;
  const own = site?.types.get(type);
  const fields = withInner(own?.fields ?? []);
  const field = fields.find((f) => f.kind === 'richtext' && (f.id === id || f.key === id));
  if (!site || !own || !field) return null;
  const { zone, language } = site.design.site;
  return { type: own, field, zone, language, at };
}

function sourceOf({ field, zone, language }: Found, doc: unknown) {
  if (doc === null || checkRichText(doc) !== null) return { markdown: '', json: '' };
  const printed = kindOf(field).print(doc, field, zone) as RichNode;
  const given = { now: 0, zone, language, pictures: {}, richText: markdownToRichText };
  return {
    markdown: markdownOf(printed, field, given),
    json: JSON.stringify(printed, null, 2),
  };
}

/** Reads a text that somebody wrote as source; whatever it holds that may not stand refuses it. */
function readText(
  view: SiteView,
  { field, zone, at, role, stood }: Found & { role: Role; stood: () => unknown },
  { form, source }: { form: 'markdown' | 'json'; source: string },
): ReadText {
  const faults: TextFault[] = [];
  const { connection } = view;
  const world = storedWorld(connection, view.at(at)!.site, at);
  const markdown = (text: string): RichNode =>
    markdownToRichText(text, {
      hasPicture: (key) => world.has({ of: 'media', key }),
      tell: ({ line, words }) => faults.push({ at: `line ${line}`, words }),
    });
  const given: Given = { now: at, zone, richText: markdown };
  let raw: unknown;
  try {
    if (form === 'json') {
      const json = parseInput(source);
      if (!json.ok) return { faults: [{ at: '/', words: json.issues[0]!.message }] };
      raw = json.value;
    } else raw = source;
    const parsed = kindOf(field).parse(raw, field, given);
    if (!parsed.ok) return { faults: [...faults, ...parsed.issues.map(faultOf)] };
    const values = { [field.id]: parsed.value };
    faults.push(
      ...checkMentions([field], values, world).map((issue) => missing(issue, parsed.value)),
      ...notLetInAnew([field], values, () => ({ [field.id]: stood() }), role).map(faultOf),
    );
    return faults.length > 0 ? { faults } : { doc: parsed.value as RichNode | null };
  } catch (error) {
    if (!(error instanceof TooMuch)) throw error;
    return { faults: [{ at: `line ${error.finding.line}`, words: error.finding.words }] };
  }
}

/** An issue of a value, with the place in the text that its words name. */
function faultOf({ message, fix }: Issue): TextFault {
  const at = /at "(\/[^"]*)"/.exec(message)?.[1] ?? '/';
  return { at, words: fix === undefined ? message : `${message} ${fix}` };
}

/** Something that a text names and that is not there, with where the text first names it. */
function missing(issue: Issue, doc: unknown): TextFault {
  const name = /"([^"]*)"/.exec(issue.message)?.[1];
  return { ...faultOf(issue), at: placeOf(doc, name, '') ?? '/' };
}

/** A JSON Pointer to the first text within a value that is this one; null where none is. */
function placeOf(value: unknown, name: string | undefined, at: string): string | null {
  if (value === name) return at;
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, inner] of Object.entries(value)) {
    const found = placeOf(inner, name, `${at}/${key}`);
    if (found !== null) return found;
  }
  return null;
}
