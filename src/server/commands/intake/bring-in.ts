import { randomBytes } from 'node:crypto';
import { z } from 'zod';
import type { ContentType } from '@/core/design/spec.ts';
import type { IntakeWorld } from '@/core/intake/map-record.ts';
import { type Mapping, PLACES, mappingSpec } from '@/core/intake/mapping.ts';
import { type SourceRecord, valueAt } from '@/core/intake/record.ts';
import type { Issue } from '@/core/issue.ts';
import { searchKey } from '@/core/text.ts';
import { Stage } from '../../db/stage.ts';
import { statement } from '../../store/statement.ts';
import { TooManyForOneWrite } from '../../store/too-many.ts';
import { deriveAll } from '../bulk/derive-all.ts';
import { keepChange } from '../bulk/kept-changes.ts';
import { liveRevision, retire } from '../bulk/publish.ts';
import { type CommandContext, Refused, TriedOnly, command } from '../definition.ts';
import { entryOf } from '../entry-lookup.ts';
import { type BroughtBefore, type BroughtNow, bringRecord } from './bring-record.ts';
import { noteBrought, sourceOf, writeSource } from './sources.ts';
import type { BeforeBrought } from './take-back.ts';
import { type Besides, intakeWorld } from './world.ts';

const LONGEST_NAME = 80;

/**
 * Makes entries of records that were sent, or saves what they say otherwise than when they were
 * brought before; all in one transaction. Those that cannot be are left out and told, by reason.
 * `dry` only says what would come of it.
 */
export const bringIn = command({
  deed: 'publish',
  fromServer: true,
  input: z.strictObject({
    /** The file that holds what was sent, read. */
    stage: z.string(),
    /** What it was brought from before; null where it never was. */
    source: z.string().max(64).nullable(),
    /** What it is called. */
    name: z.string().trim().min(1).max(LONGEST_NAME),
    mapping: mappingSpec,
    dry: z.boolean().default(false),
  }),
  run(context, { stage: file, source, name, mapping, dry }) {
    const type = context.site.typesByKey.get(mapping.type);
    if (!type) throw new Refused(noType(mapping.type));
    checkMapping(mapping, type);
    const stage = new Stage(file);
    try {
      if (context.most !== null && stage.count > context.most)
        throw new TooManyForOneWrite(stage.count);
      const result = bring(context, stage, { source, name, mapping, type });
      if (dry) throw new TriedOnly(result);
      return result;
    } finally {
      stage.close();
    }
  },
});

interface Wanted {
  source: string | null;
  name: string;
  mapping: Mapping;
  type: ContentType;
}

function bring(context: CommandContext, stage: Stage, { source, name, mapping, type }: Wanted) {
  const known = source === null ? null : sourceOf(context, source);
  const before = known?.brought ?? new Map<string, BroughtBefore & { entry: string }>();
  const { ids, doubled } = becoming(context, stage, { mapping, type, before });
  const gone = [...before].filter(([, { entry }]) => !ids.has(entry));
  const besides: Besides = { subjects: new Set(), media: new Set(), findings: [], lost: 0 };
  const now = new Map<string, BroughtNow & { record: string }>();
  const world = intakeWorld(context, stage, { mapped: type.key }, besides);
  const act = acting(context, stage, { mapping, type, world, ids, now });
  const leaving = mapping.gone === 'retire' ? gone.map(([, { entry }]) => entry) : [];
  const { done, left } = deriveAll(context, [...ids.keys(), ...leaving], act);
  dropUnwritten(
    context,
    [...ids].filter(([, { before: b }]) => b === null).map(([id]) => id),
  );
  for (const id of now.keys()) if (!done.has(id)) now.delete(id);
  const kept = writeSource(context, { id: source, name, mapping, type });
  noteBrought(context, kept, now);
  const change =
    done.size === 0 ? null : keepChange(context, { do: 'bringIn', source: kept }, done);
  const created = [...now.values()].filter(({ is }) => is === 'created').length;
  return {
    at: context.at,
    source: kept,
    change,
    ...{ created, changed: now.size - created, same: ids.size - now.size - leftOf(ids, left) },
    gone: { count: gone.length, retired: leaving.filter((id) => done.has(id)).length },
    refused: reasons(stage, left, doubled),
    subjects: besides.subjects.size,
    media: besides.media.size,
    lost: { count: besides.lost, first: besides.findings },
  };
}

/** Brings an entry's record in, noting what came of it; null where it says the same as before. */
function acting(
  context: CommandContext,
  stage: Stage,
  {
    ids,
    now,
    ...how
  }: Pick<Wanted, 'mapping' | 'type'> & {
    world: IntakeWorld;
    ids: ReadonlyMap<string, Becomes>;
    now: Map<string, BroughtNow & { record: string }>;
  },
): (id: string) => BeforeBrought | null {
  return (id) => {
    const record = stage.recordOf(id);
    if (!record) return retired(context, id);
    const { record: named, before } = ids.get(id)!;
    if (before) entryOf(context, id); // it may have been deleted here
    const live = liveRevision(context, id);
    const brought = bringRecord(context, { id, record, before, ...how });
    if (!brought) return null;
    now.set(id, { ...brought, record: named });
    const { revision } = brought;
    return before ? { is: 'changed', revision, was: before, live } : { is: 'created', revision };
  };
}

/** What came of bringing content in. */
export type BroughtIn = ReturnType<typeof bring>;

interface Becomes {
  record: string;
  before: BroughtBefore | null;
}

/** Which entry each record becomes; new ones are there from now on, so that others may lead to them. */
function becoming(
  context: CommandContext,
  stage: Stage,
  {
    mapping,
    type,
    before,
  }: Pick<Wanted, 'mapping' | 'type'> & {
    before: ReadonlyMap<string, BroughtBefore & { entry: string }>;
  },
): { ids: Map<string, Becomes>; doubled: SourceRecord[] } {
  const insert = statement(
    context.connection,
    'INSERT INTO entry (id, type, created, author) VALUES (?, ?, ?, ?)',
  );
  const idKey = keyFor(mapping, '@id');
  const nameKeys = Object.keys(mapping.fields).filter((k) => mapping.fields[k] === type.naming);
  const ids = new Map<string, Becomes>();
  const doubled: SourceRecord[] = [];
  stage.forget();
  for (const record of stage.records(mapping.within)) {
    const own = idKey === null ? undefined : valueAt(record, idKey);
    const known = own === undefined || own === null ? record.source : String(own);
    const was = before.get(known) ?? null;
    const entry = was?.entry ?? `${type.key}-${randomBytes(6).toString('hex')}`;
    const called = nameKeys.map((key) => valueAt(record, key)).find((value) => value);
    const name = searchKey(String(called ?? ''));
    if (!stage.become(record.source, { record: known, entry, name })) doubled.push(record);
    else {
      ids.set(entry, { record: known, before: was });
      if (!was) insert.run(entry, type.id, context.at, context.actor.id);
    }
  }
  return { ids, doubled };
}

function keyFor(mapping: Mapping, to: string): string | null {
  return Object.entries(mapping.fields).find(([, place]) => place === to)?.[0] ?? null;
}

/** Takes an entry off the site whose record is gone; null where it is off already. */
function retired(context: CommandContext, id: string): BeforeBrought | null {
  const live = liveRevision(context, id);
  const before = retire.act(context, { id, ...entryOf(context, id) }, { at: null });
  return before === null ? null : { is: 'retired', live };
}

/** Entries that could not be made leave nothing. */
function dropUnwritten({ connection }: CommandContext, ids: readonly string[]): void {
  const drop = statement(
    connection,
    'DELETE FROM entry WHERE id = ? AND NOT EXISTS (SELECT 1 FROM revision WHERE entry = entry.id)',
  );
  for (const id of ids) drop.run(id);
}

function leftOf(ids: ReadonlyMap<string, unknown>, left: ReadonlyMap<string, unknown>): number {
  return [...left.keys()].filter((id) => ids.has(id)).length;
}

/** Records that are left out for the same reason, the most frequent first. */
interface LeftOut {
  message: string;
  fix: string;
  count: number;
  /** The first of them: files with their lines. */
  places: string[];
}

const MOST_REASONS = 50;
const MOST_PLACES = 5;

function reasons(
  stage: Stage,
  left: ReadonlyMap<string, readonly Issue[]>,
  doubled: readonly SourceRecord[],
): LeftOut[] {
  const all = new Map<string, LeftOut>();
  const add = ({ message, fix = '', path }: Issue, record: SourceRecord | null): void => {
    const known = all.get(message);
    if (!known && all.size >= MOST_REASONS) return;
    const group = known ?? { message, fix, count: 0, places: [] };
    group.count += 1;
    if (record && group.places.length < MOST_PLACES) group.places.push(placeOf(record, path));
    all.set(message, group);
  };
  for (const [id, [first]] of left) add(first!, stage.recordOf(id));
  for (const record of doubled) add(TWICE, record);
  return [...all.values()].sort((a, b) => b.count - a.count);
}

function placeOf({ source, line }: SourceRecord, value: string | undefined): string {
  const place = `${source.replace(/#\d+$/, '')}:${line}`;
  return value === undefined ? place : `${place} “${value}”`;
}

const TWICE: Issue = {
  code: 'twice',
  message: 'Another record before it is known by the same id.',
  fix: 'Give each an id of its own, or map no key to it.',
};

/** @throws Refused where a key is mapped to what is not there */
function checkMapping({ fields }: Mapping, type: ContentType): void {
  const keys = new Set([...type.fields.map((f) => f.key), ...Object.keys(PLACES)]);
  for (const [key, to] of Object.entries(fields))
    if (!keys.has(to))
      throw new Refused({
        code: 'wrong-mapping',
        path: key,
        message: `“${key}” is mapped to “${to}”, and ${type.label} has no such field.`,
        fix: 'Map it elsewhere.',
      });
}

function noType(key: string): Issue {
  return {
    code: 'unknown-type',
    message: `There is no content type “${key}”.`,
    fix: 'Choose another, or make it first.',
  };
}
