import type { Connection } from '../db/connection.ts';
import { derive } from '../store/derive.ts';
import { readValues } from '../store/stored-values.ts';
import { statement } from '../store/statement.ts';
import { raisePublic } from '../store/write.ts';
import { type Actor, permit } from './permit.ts';
import { Refusal, refusable } from './write-entry.ts';
import type { Result } from '@/core/issue.ts';
import { isBlank } from '@/core/pattern/types.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { parseInstant } from '@/core/time/parse.ts';
import type { Instant } from '@/core/time/interval.ts';

/** A publication or retirement: at once where `at` is null, else at a local time or instant (ISO 8601). */
export interface PlanInput {
  entry: string;
  action: 'publish' | 'retire';
  at: string | null;
  /** The revision to publish; null for the newest saved by then. */
  revision: number | null;
}

/** Publishes or retires an entry, now or at an instant. Refused where it cannot have its address. */
export function planChange(
  connection: Connection,
  actor: Actor,
  input: PlanInput,
  wallClock: Instant,
): Result<{ at: Instant }> {
  permit(actor, 'publish');
  return refusable(connection, wallClock, (now, site) => {
    const type = typeOf(connection, site, input.entry);
    const at = instantOf(input, now, site);
    if (input.action === 'publish')
      checkRequired(connection, type, site.design.site.language, input);
    // A second publication at one instant takes the place of the first.
    if (input.at !== null)
      statement(
        connection,
        'DELETE FROM planned_change WHERE entry = ? AND at = ? AND action = ?',
      ).run(input.entry, at, input.action);
    const sequence =
      ((statement(connection, 'SELECT max(sequence) FROM planned_change WHERE entry = ? AND at = ?')
        .pluck()
        .get(input.entry, at) as number | null) ?? -1) + 1;
    statement(
      connection,
      'INSERT INTO planned_change (entry, language, at, sequence, action, revision, local, zone, person) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    ).run(
      input.entry,
      site.design.site.language,
      at,
      sequence,
      input.action,
      input.revision,
      input.at,
      input.at === null ? null : site.design.site.zone,
      actor.id,
    );
    rederive(connection, site, input.entry, now);
    return { at };
  });
}

/** Cancels what is planned for an entry at an instant that lies ahead. */
export function cancelPlan(
  connection: Connection,
  actor: Actor,
  { plan }: { plan: number },
  wallClock: Instant,
): Result<{ entry: string }> {
  permit(actor, 'publish');
  return refusable(connection, wallClock, (now, site) => {
    const entry = statement(connection, 'SELECT entry FROM planned_change WHERE id = ? AND at > ?')
      .pluck()
      .get(plan, now) as string | undefined;
    if (entry === undefined)
      throw new Refusal([
        {
          code: 'plan-gone',
          message: 'This plan has been carried out or cancelled already.',
          fix: 'Reload the page to see how things stand.',
        },
      ]);
    statement(connection, 'DELETE FROM planned_change WHERE id = ?').run(plan);
    rederive(connection, site, entry, now);
    return { entry };
  });
}

function rederive(connection: Connection, site: CompiledSite, entry: string, now: Instant): void {
  const { refusals, types } = derive(connection, { site, settled: now, touched: [entry] });
  const own = refusals.filter((r) => r.entry === entry && r.cancelled);
  if (own.length > 0)
    throw new Refusal(own.map(({ code, message, fix }) => ({ code, message, fix })));
  raisePublic(
    connection,
    [...types].map((t) => `type:${t}`),
  );
}

function typeOf(connection: Connection, site: CompiledSite, entry: string): ContentType {
  const type = site.types.get(
    (statement(connection, 'SELECT type FROM entry WHERE id = ?').pluck().get(entry) as
      string | undefined) ?? '',
  );
  if (!type)
    throw new Refusal([
      {
        code: 'unknown-entry',
        message: 'There is no such entry.',
        fix: 'Go back to Content and choose one.',
      },
    ]);
  return type;
}

function instantOf({ at }: PlanInput, now: Instant, site: CompiledSite): Instant {
  if (at === null) return now;
  const instant = parseInstant(at, site.design.site.zone);
  if (instant === null)
    throw new Refusal([
      {
        code: 'wrong-instant',
        path: 'at',
        message: `"${at}" is no date and time.`,
        fix: 'Choose a day and a time.',
      },
    ]);
  if (instant <= now)
    throw new Refusal([
      {
        code: 'past-instant',
        path: 'at',
        message: 'This instant lies in the past, and the past stays as it was.',
        fix: 'Choose a later one, or do it now.',
      },
    ]);
  return instant;
}

function checkRequired(
  connection: Connection,
  type: ContentType,
  language: string,
  { entry, revision }: PlanInput,
): void {
  const row = statement(
    connection,
    'SELECT "values" AS v FROM revision WHERE entry = ? AND (? IS NULL OR number = ?) ORDER BY number DESC LIMIT 1',
  ).get(entry, revision, revision) as { v: string } | undefined;
  if (!row)
    throw new Refusal([
      {
        code: 'nothing-saved',
        message: 'Nothing of this entry has been saved yet.',
        fix: 'Save it first.',
      },
    ]);
  const values = readValues(row.v, language);
  const blank = type.fields.filter((f) => f.required && isBlank(values[f.id]));
  if (blank.length > 0)
    throw new Refusal(
      blank.map((f) => ({
        code: 'required',
        path: f.key,
        message: `${f.label} is required, and it is blank.`,
        fix: 'Fill it in and save before publishing.',
      })),
    );
}
