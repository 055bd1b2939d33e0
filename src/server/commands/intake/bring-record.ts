import { createHash } from 'node:crypto';
import { checkByHand } from '@/core/address/path.ts';
import { PRESETS } from '@/core/design/presets.ts';
import { ORDER } from '@/core/design/other-order.ts';
import type { ContentType } from '@/core/design/spec.ts';
import { type IntakeWorld, type MappedRecord, mapRecord } from '@/core/intake/map-record.ts';
import type { Mapping } from '@/core/intake/mapping.ts';
import type { SourceRecord } from '@/core/intake/record.ts';
import { parseInstant } from '@/core/time/parse.ts';
import { crowdedTop } from '../../store/at-top.ts';
import { valuesOfForm } from '../../store/form-values.ts';
import { withNextPlaces } from '../../store/newest/positions.ts';
import { statement } from '../../store/statement.ts';
import { doubledValues } from '../../store/unique-values.ts';
import { type CommandContext, Refused } from '../definition.ts';
import { newestValues } from '../entry-lookup.ts';
import { addPlan, checkPublishable } from '../plan-change.ts';
import { blankName, checkDepth, joinPicks, writeRevision } from '../save-entry.ts';

/** An entry that was brought before: what its record said, and what it was saved as. */
export interface BroughtBefore {
  print: string;
  revision: number;
}

/** What a record came to. */
export interface BroughtNow extends BroughtBefore {
  is: 'created' | 'changed';
}

interface Bringing {
  id: string;
  record: SourceRecord;
  mapping: Mapping;
  type: ContentType;
  world: IntakeWorld;
  before: BroughtBefore | null;
}

/**
 * Makes an entry of a record, or saves what it says otherwise than before; null where it says the
 * same. Nothing is derived yet. @throws Refused where it cannot be, or was changed here since
 */
export function bringRecord(context: CommandContext, bringing: Bringing): BroughtNow | null {
  const { id, record, mapping, type, world, before } = bringing;
  const mapped = mapRecord(record, mapping, type, world);
  const { created, draft, address } = mapped;
  const print = printOf([mapped.values, created, draft, address]);
  if (before?.print === print) return null;
  if (mapped.issues.length > 0) throw new Refused(...mapped.issues);
  const isNew = before === null;
  const newest = isNew ? 0 : newestOf(context, id);
  if (before && newest !== before.revision) throw new Refused(changedHere());
  const form = isNew ? mapped.values : { ...formOf(context, id, type), ...mapped.values };
  const { connection, site, actor, at } = context;
  const read = valuesOfForm(connection, site, type, form, {
    ...{ now: at, entry: isNew ? null : id, role: actor.role },
  });
  const values = isNew ? withNextPlaces(connection, type, read.values) : read.values;
  const issues = [
    ...read.issues,
    ...blankName(type, values, isNew ? null : id),
    ...doubledValues(connection, type, values, { entry: id, site: site.design.site }),
    ...crowdedTop(connection, type, values, isNew ? null : id),
  ];
  if (issues.length > 0) throw new Refused(...issues);
  checkDepth(context, id, type, values);
  const number = newest + 1;
  writeRevision(context, id, type, { number, values });
  if (isNew) begin(context, bringing, mapped);
  publish(context, bringing, mapped);
  return { is: isNew ? 'created' : 'changed', print, revision: number };
}

/** What a new entry has besides its values: when it was written, its address, its picks. */
function begin(
  context: CommandContext,
  { id, type }: Bringing,
  { created, author, address }: MappedRecord,
): void {
  const { connection, site, at } = context;
  const written = created === null ? null : parseInstant(created, site.design.site.zone);
  const sql = 'UPDATE entry SET created = ? WHERE id = ?';
  statement(connection, sql).run(Math.min(written ?? at, at), id);
  if (author !== null) {
    const known = statement<string>(
      connection,
      'SELECT id FROM person WHERE name = ? COLLATE NOCASE ORDER BY id LIMIT 1',
    ).pluck();
    const give = statement(connection, 'UPDATE entry SET author = ? WHERE id = ?');
    give.run(known.get(author) ?? author, id);
  }
  if (address !== null) {
    const wrong = checkByHand(address);
    if (wrong !== null)
      throw new Refused({
        code: 'wrong-address',
        message: `${address}: ${wrong}`,
        fix: 'Leave addresses out, or change them where they come from.',
      });
    statement(connection, 'INSERT INTO by_hand (entry, path, starts) VALUES (?, ?, ?)').run(
      id,
      address,
      at,
    );
  }
  joinPicks(context, id, type);
}

/** Has an entry go live where that is wanted: now, or when it says that it was written. */
function publish(
  context: CommandContext,
  { id, type, mapping }: Bringing,
  { draft, created }: MappedRecord,
): void {
  if (mapping.publish === 'no' || (mapping.publish === 'not-drafts' && draft)) return;
  checkPublishable(context, type, { entry: id, revision: null });
  const when = created === null ? null : parseInstant(created, context.site.design.site.zone);
  const isAhead = when !== null && when > context.at;
  const plan = { entry: id, action: 'publish', revision: null } as const;
  addPlan(context, {
    ...plan,
    at: isAhead ? when : context.at,
    typed: isAhead ? new Date(when).toISOString() : null,
  });
}

/** The newest values as a form would send them. */
function formOf(context: CommandContext, id: string, type: ContentType): Record<string, unknown> {
  const known = new Set([...type.fields.map((f) => f.id), PRESETS, ORDER]);
  const values = Object.entries(newestValues(context, id, type));
  return Object.fromEntries(values.filter(([field]) => known.has(field)));
}

function newestOf({ connection }: CommandContext, id: string): number {
  return statement<number>(connection, 'SELECT newest FROM entry WHERE id = ?').pluck().get(id)!;
}

function printOf(said: unknown): string {
  return createHash('sha256').update(JSON.stringify(said)).digest('hex').slice(0, 32);
}

function changedHere(): Refused['issues'][number] {
  return {
    code: 'changed-here',
    message: 'It was changed here since it was brought in, and where it comes from too.',
    fix: 'Look at both; what is here stays.',
  };
}
