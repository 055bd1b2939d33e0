import type { ContentType } from '@/core/design/spec.ts';
import { nameOf, type Values } from '@/core/design/values.ts';
import { ORDER } from '@/core/design/other-order.ts';
import { PRESETS } from '@/core/design/presets.ts';
import { same } from '@/core/design-edit/properties.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import { readValues } from '../store/stored-values.ts';
import type {
  EntryRows,
  HeldRow,
  LiveRow,
  PlanRow,
  RefusalRow,
  RevisionRow,
} from './entry-rows.ts';
import { iso } from './history-files.ts';
import { type PrintedValues, type Printing, printedValues } from './printed-values.ts';

/** What the files of entries are made with. */
export interface EntryPrinting extends Printing {
  /** The type of an entry in the design that the folder holds; undefined where it is gone. */
  typeOf: (id: string) => ContentType | undefined;
}

/** An entry as its file has it; `defaultId` is the id that its place gives it. */
export function entryFile(rows: EntryRows, how: EntryPrinting, defaultId: string): object {
  const type = how.typeOf(rows.type);
  const printed = rows.revisions.map((r) =>
    printedValues(type, JSON.parse(r.values) as Values, how),
  );
  const { fields, languages, stored } = printed.at(-1)!;
  return {
    entry: {
      ...(rows.id === defaultId ? {} : { id: rows.id }),
      ...(type ? {} : { typeId: rows.type }),
      created: iso(rows.created),
      ...(rows.author === '' ? {} : { author: rows.author }),
      ...newest(rows, type, how),
      ...(rows.deleted === null ? {} : { deleted: iso(rows.deleted) }),
      ...list(
        'plans',
        rows.plans.map((plan, i) => planned(plan, i, rows, how)),
      ),
      ...list('address', rows.byHand.map(byHand)),
      was: rows.live.map((row) => live(row, how)),
      ...list(
        'held',
        rows.held.map((row) => held(row, how)),
      ),
      ...list('refused', rows.refused.map(refused)),
      ...furtherFacts(rows, how),
      ...(Object.keys(languages).length > 0 ? { languages } : {}),
      ...list('revisions', older(rows, type, printed, how)),
      ...besides(stored),
    },
    ...fields,
  };
}

function newest(rows: EntryRows, type: ContentType | undefined, how: EntryPrinting): object {
  const revision = rows.revisions.at(-1)!;
  return {
    saved: iso(revision.saved),
    ...numberOf(rows.revisions, rows.revisions.length - 1),
    ...(revision.author === rows.author ? {} : { savedBy: revision.author }),
    ...nameOtherThan(rows.id, type, revision, how.language),
    ...(revision.note === '' ? {} : { note: revision.note }),
  };
}

function older(
  { id, author, revisions }: EntryRows,
  type: ContentType | undefined,
  printed: readonly PrintedValues[],
  how: EntryPrinting,
): object[] {
  return revisions.slice(0, -1).map((revision, i) => ({
    saved: iso(revision.saved),
    ...numberOf(revisions, i),
    ...(revision.author === author ? {} : { author: revision.author }),
    ...nameOtherThan(id, type, revision, how.language),
    ...(revision.note === '' ? {} : { note: revision.note }),
    ...differences(printed.at(-1)!, printed[i]!),
  }));
}

/** The number of a revision where it does not follow the one before. */
function numberOf(revisions: readonly RevisionRow[], i: number): object {
  const { number } = revisions[i]!;
  return number === (revisions[i - 1]?.number ?? 0) + 1 ? {} : { number };
}

function list(name: string, items: readonly object[]): object {
  return items.length > 0 ? { [name]: items } : {};
}

/** The name of a revision where its type, as it is now, would give it another. */
function nameOtherThan(
  id: string,
  type: ContentType | undefined,
  { values, name }: RevisionRow,
  language: string,
): object {
  const given = type && nameOf({ id, type, values: readValues(values, language) });
  return given === name ? {} : { name };
}

/** An older revision's values: those that differ from the newest, or all where that is not enough. */
function differences(newest: PrintedValues, printed: PrintedValues): object {
  const { fields, languages, stored } = printed;
  const values = Object.fromEntries(
    Object.entries(fields).filter(([key, value]) => !same(value, newest.fields[key])),
  );
  const isEnough = same({ ...newest.fields, ...values }, fields);
  return {
    ...(isEnough ? { values } : { whole: true, values: fields }),
    ...(same(languages, isEnough ? newest.languages : {}) ? {} : { languages }),
    ...besides(stored),
  };
}

/**
 * What a revision holds besides its fields: what it has otherwise than its type, the order of
 * who leads to it, and the rest.
 */
function besides({ [PRESETS]: presets, [ORDER]: order, ...stored }: Values): object {
  return {
    ...(order ? { order } : {}),
    ...(presets ? { presets } : {}),
    ...(Object.keys(stored).length > 0 ? { stored } : {}),
  };
}

function planned(plan: PlanRow, place: number, { author }: EntryRows, how: Printing): object {
  const { at, revision, sequence, local, zone, person } = plan;
  return {
    at: iso(at),
    do: plan.do,
    ...(revision === null ? {} : { revision }),
    ...(sequence === place ? {} : { sequence }),
    ...(local === null ? {} : { local }),
    ...(zone === null ? {} : { zone }),
    ...(person === author ? {} : { person }),
    ...inLanguage(plan, how),
  };
}

function byHand({ path, starts, ends }: EntryRows['byHand'][number]): object {
  return {
    path,
    ...(starts === BEGINNING ? {} : { from: iso(starts) }),
    ...(ends === null ? {} : { to: iso(ends) }),
  };
}

function live(row: LiveRow, how: Printing): object {
  const { revision, shared } = row;
  const sharing = shared === revision ? {} : { shared };
  return { ...bounds(row), revision, ...sharing, ...inLanguage(row, how) };
}

function held(row: HeldRow, how: Printing): object {
  const { path, base, role } = row;
  return {
    path,
    ...(base === path ? {} : { base }),
    ...(role === 'current' ? {} : { role }),
    ...bounds(row),
    ...inLanguage(row, how),
  };
}

function refused({ at, code, message, fix, cancelled, base, byHand: own }: RefusalRow): object {
  return {
    at: iso(at),
    code,
    message,
    fix,
    ...(cancelled === 1 ? { cancelled: true } : {}),
    ...(base === null ? {} : { base }),
    ...(own === 1 ? { byHand: true } : {}),
  };
}

/** What was so in further languages, by their ids. */
function furtherFacts({ further }: EntryRows, how: EntryPrinting): object {
  const all = further.flatMap(({ language, live: rows, held: paths, refused: not }) => {
    if (rows.length + paths.length + not.length === 0) return [];
    const was = rows.map(({ language: spoken, ...row }) => ({
      ...live({ ...row, language: how.language }, how),
      ...(spoken === how.language ? { fallback: true } : {}),
    }));
    const facts = {
      ...list('was', was),
      ...list(
        'held',
        paths.map((row) => held({ ...row, language: how.language }, how)),
      ),
      ...list('refused', not.map(refused)),
    };
    return [[language, facts] as const];
  });
  return all.length === 0 ? {} : { further: Object.fromEntries(all) };
}

function bounds({ starts, ends }: { starts: Instant; ends: Instant | null }): object {
  return { from: iso(starts), ...(ends === null ? {} : { to: iso(ends) }) };
}

function inLanguage({ language }: { language: string }, how: Printing): object {
  return language === how.language ? {} : { language };
}
