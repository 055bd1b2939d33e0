import type { Connection, Statement } from '../db/connection.ts';
import type { AddressRules } from '@/core/address/rules.ts';
import { subjectIn } from '@/core/design/subject-words.ts';
import type { Media, Subject, Values } from '@/core/design/values.ts';
import { endingByRules, publicationsByRules } from '@/core/timing/plans.ts';
import {
  type AddressHistory,
  type ByHand,
  type Standing,
  type TimelineEntry,
  type TimelineSource,
  freshStanding,
} from '@/core/address/model.ts';
import type { Plan, Revision } from '@/core/publication/model.ts';
import { codeOf } from '@/core/publication/shown.ts';
import { BEGINNING, type Instant, covers } from '@/core/time/interval.ts';
import { arrivalsOf, speechOf } from './speech.ts';
import { type DesignsAhead, rulesOver, siteAt, sitesOf } from './designs-ahead.ts';
import {
  type InLanguage,
  type Speech,
  type SpokenRevision,
  type StoredPlan,
  type StoredRevision,
  inLanguage,
  isFallback,
  planOf,
} from './language-facts.ts';
import { type LanguageTables, tablesRead } from './language-tables.ts';
import { statement } from './statement.ts';
import { readValues } from './stored-values.ts';
import { valuesAs } from '@/core/design/conversion.ts';
import { subjectAt } from './subject-store.ts';
import { asOf } from './as-of.ts';

/** Plans of a deleted entry that lie ahead of its deletion wait until it is brought back. */
const UNTIL_DELETED =
  'coalesce((SELECT deleted FROM entry AS d WHERE d.id = planned_change.entry), 9e15)';

/** What a simulation is told besides what is stored. */
export interface TimelineExtras {
  /** While loading: the addresses that entries are known to have held, by id. */
  histories?: ReadonlyMap<string, AddressHistory>;
  /** Hears of every address worked out, so that long work shows that it goes on. */
  step?: () => void;
}

interface EntryRow {
  id: string;
  type: string;
  created: Instant;
  author: string;
  deleted: Instant | null;
}

interface LiveRow {
  revision: number;
  shared: number;
  language: string;
  starts: number;
}

const LIVE_ROW = 'revision, shared_revision AS shared, language, starts';

function inOrder<P extends Plan>(plans: readonly P[]): P[] {
  return [...plans].sort((a, b) => a.at - b.at || a.sequence - b.sequence);
}

/** An entry as it is stored, and as it is of its type in the design asked for last. */
interface StoredEntry {
  typeId: string;
  entry: Omit<TimelineEntry, 'type' | 'revisions'> & { revisions: readonly SpokenRevision[] };
  as?: TimelineEntry;
  /** Whether the words of the site stand in there. */
  standsIn?: boolean;
}

/** Reads entries, and how they stand at an instant, for the simulation; each entry once. */
export class StoredTimeline implements TimelineSource {
  private readonly entries = new Map<string, StoredEntry | undefined>();
  /** Paths that were asked for. */
  readonly asked = new Set<string>();
  private readonly subjects = new Map<string, Subject | null>();
  private readonly addressFields: string[];
  private readonly ruled: ReadonlySet<string>;
  private readonly tables: LanguageTables;
  /** Set where the site is in several languages. */
  private readonly speech: Speech | null;

  constructor(
    private readonly connection: Connection,
    private readonly designs: DesignsAhead,
    private readonly extras: TimelineExtras = {},
    /** What comes of it is worked out from then on. */
    private readonly start: Instant = BEGINNING,
  ) {
    this.tables = tablesRead(connection, designs.language);
    this.speech = speechOf(designs);
    const fields = sitesOf(designs).flatMap(({ addresses }) => [
      ...addresses.referenceFields.values(),
    ]);
    this.addressFields = [...new Set(fields.flat())];
    this.ruled = new Set(sitesOf(designs).flatMap(({ timing }) => [...timing.keys()]));
  }

  /** The address rules that hold at an instant. */
  rulesAt(at: Instant): AddressRules {
    return siteAt(this.designs, at).addresses;
  }

  step(): void {
    this.extras.step?.();
  }

  entry(id: string, at: Instant): TimelineEntry | undefined {
    if (!this.entries.has(id)) this.entries.set(id, this.read(id));
    const stored = this.entries.get(id);
    const type = stored && siteAt(this.designs, at).types.get(stored.typeId);
    if (!type) return undefined;
    const standsIn = this.speech?.fallback.some((when) => covers(when, at)) ?? false;
    if (stored.as?.type !== type || stored.standsIn !== standsIn)
      Object.assign(stored, { as: this.asOfType(stored.entry, type, at, standsIn), standsIn });
    return stored.as;
  }

  private asOfType(
    entry: StoredEntry['entry'],
    type: TimelineEntry['type'],
    at: Instant,
    standsIn: boolean,
  ): TimelineEntry {
    const { site } = siteAt(this.designs, at).design;
    const revisions = entry.revisions.flatMap(({ standIn, ...revision }) => {
      if (!standsIn && isFallback(revision.number)) return [];
      const values = valuesAs(type.fields, (standsIn && standIn) || revision.values, site);
      return [{ ...revision, values }];
    });
    return { ...entry, revisions, type };
  }

  mayAct(id: string, at: Instant): boolean {
    if (this.designs.language !== undefined || this.entries.has(id)) return true;
    return (
      this.sql<number>(
        `SELECT EXISTS (SELECT 1 FROM planned_change WHERE entry = @id AND at = @at)
         OR EXISTS (SELECT 1 FROM entry WHERE id = @id AND deleted = @at)`,
      )
        .pluck()
        .get({ id, at }) === 1
    );
  }

  standing(id: string, at: Instant): Standing {
    const { live: liveTable, address } = this.tables;
    const live = this.sql<LiveRow>(
      `SELECT ${LIVE_ROW} FROM ${liveTable} WHERE entry = ? AND ${asOf('')}`,
    ).get(id, at, at);
    const last =
      live ??
      this.sql<LiveRow>(
        `SELECT ${LIVE_ROW} FROM ${liveTable} WHERE entry = ? AND starts <= ? ORDER BY starts DESC LIMIT 1`,
      ).get(id, at);
    if (!last) return freshStanding();
    const addresses = this.sql<{ path: string; base: string; starts: number; ends: number | null }>(
      `SELECT path, base, starts, ends FROM ${address} WHERE entry = ? AND role = 'current' AND starts <= ? ORDER BY starts DESC LIMIT 1`,
    ).get(id, at);
    const holds = addresses && (addresses.ends === null || addresses.ends > at);
    return {
      live: live ? { revision: this.codeOf(live), from: live.starts } : null,
      held: holds ? this.held(id, addresses, at) : null,
      published: this.publishedBy(id, at),
      lastRevision: this.codeOf(last),
      lastHeld: addresses ? { path: addresses.path, base: addresses.base } : null,
    };
  }

  /** When it was live first, by an instant: in a further language in that. */
  private publishedBy(id: string, at: Instant): Instant | null {
    const sql =
      this.designs.language === undefined
        ? 'SELECT CASE WHEN published <= ? THEN published END FROM entry WHERE id = ?'
        : `SELECT min(starts) FROM ${this.tables.live} WHERE starts <= ? AND entry = ?`;
    return this.sql<Instant | null>(sql).pluck().get(at, id) ?? null;
  }

  private codeOf({ revision, shared, language }: LiveRow): number {
    const { edition } = this.speech?.design ?? {};
    const isFallback = edition !== undefined && language === edition.own;
    return codeOf({ revision, shared, isFallback });
  }

  private held(
    id: string,
    { path, base, starts: from }: { path: string; base: string; starts: number },
    at: Instant,
  ): Standing['held'] {
    const refused = this.sql<string | null>(
      `SELECT base FROM ${this.tables.refusal} WHERE entry = ? AND at BETWEEN ? AND ? AND cancelled = 0 AND code <> 'nothing-left' ORDER BY at DESC LIMIT 1`,
    )
      .pluck()
      .get(id, from, at);
    return { path, base, from, refused: refused ?? null };
  }

  holder(path: string, at: Instant): string | null {
    this.asked.add(path);
    return (
      this.sql<string>(
        `SELECT entry FROM ${this.tables.address} WHERE path = ? AND role = 'current' AND ${asOf('')}`,
      )
        .pluck()
        .get(path, at, at) ?? null
    );
  }

  dependents(id: string): readonly string[] {
    if (this.addressFields.length === 0) return [];
    const marks = this.addressFields.map(() => '?').join(', ');
    return this.sql<string>(
      `SELECT DISTINCT entry FROM reference_edge WHERE target = ? AND field IN (${marks})`,
    )
      .pluck()
      .all(id, ...this.addressFields);
  }

  subject(set: string, key: string, at: Instant): Subject | null {
    const { setIds, design } = siteAt(this.designs, at);
    const id = setIds.get(set);
    const name = `${set}\n${key}\n${at}`;
    let found = this.subjects.get(name);
    if (found !== undefined) return found;
    const spoken = id === undefined ? null : subjectAt(this.connection, id, key, at);
    found = spoken && subjectIn(spoken, design);
    this.subjects.set(name, found);
    return found;
  }

  media(): Media | null {
    return null; // an address reads no picture
  }

  private sql<Row>(text: string): Statement<Row> {
    return statement<Row>(this.connection, text);
  }

  /** Ids of the types for which some design has timing rules. */
  ruledTypes(): ReadonlySet<string> {
    return this.ruled;
  }

  /** When what is shown of an entry changes after the start, in a site of several languages. */
  changesAhead(id: string, at: Instant): Instant[] {
    const plans = this.speech ? (this.entry(id, at)?.plans ?? []) : [];
    return plans.flatMap((plan) => (plan.at > this.start ? [plan.at] : []));
  }

  /** Whether some design has timing rules for a type. */
  isRuled(typeId: string): boolean {
    return this.ruled.has(typeId);
  }

  /** When a rule retires an entry as it stands at an instant; null where none does. */
  endingAhead(id: string, at: Instant): Instant | null {
    const { live, published } = this.standing(id, at);
    return (live && this.entry(id, at)?.endsByRule?.(live, published, at)) ?? null;
  }

  /**
   * What the timing rules of its type do to an entry, each in the design of its time; to one that is
   * deleted they do nothing from then on.
   */
  private byRules(
    { id, type, created, deleted }: EntryRow,
    revisions: readonly Revision[],
  ): Plan[] {
    const ruled = revisions.map((revision) => ({
      ...revision,
      values: this.asOfAll(type, revision.values),
    }));
    const over = rulesOver(this.designs, type);
    return publicationsByRules({ entry: id, created, revisions: ruled }, over).filter(
      ({ at }) => deleted === null || at < deleted,
    );
  }

  /** When they retire it. */
  private endsByRule(
    { id, type, created }: EntryRow,
    revisions: readonly Revision[],
  ): TimelineEntry['endsByRule'] {
    const values = new Map(
      revisions.map((revision) => [revision.number, this.asOfAll(type, revision.values)]),
    );
    const over = rulesOver(this.designs, type);
    return (live, published, after) => {
      const looked = { entry: id, created, published, values: values.get(live.revision) ?? {} };
      return endingByRules(looked, { live: live.from, after }, over);
    };
  }

  /** Values with what every design makes of them: they go by the ids of fields. */
  private asOfAll(typeId: string, values: Values): Values {
    const all = sitesOf(this.designs).flatMap(({ types, design }) => {
      const type = types.get(typeId);
      return type ? [valuesAs(type.fields, values, design.site)] : [];
    });
    return Object.assign({}, ...all) as Values;
  }

  /** Entries that the address of one is built on, through references of any of its revisions. */
  builtOn(id: string): readonly string[] {
    if (this.addressFields.length === 0) return [];
    const marks = this.addressFields.map(() => '?').join(', ');
    return this.sql<string>(
      `SELECT DISTINCT target FROM reference_edge WHERE entry = ? AND field IN (${marks})`,
    )
      .pluck()
      .all(id, ...this.addressFields);
  }

  private read(id: string): StoredEntry | undefined {
    const row = this.sql<EntryRow>(
      'SELECT id, type, created, author, deleted FROM entry WHERE id = ?',
    ).get(id);
    if (!row) return undefined;
    const stored = this.sql<StoredRevision>(
      'SELECT number, saved, author, "values" FROM revision WHERE entry = ? ORDER BY number',
    ).all(id);
    const { type: typeId, created, author } = row;
    const isRuled = this.isRuled(typeId);
    const { revisions, plans } = this.shown(row, stored, isRuled);
    const entry = {
      ...{ id, created, author, revisions, plans },
      byHand: this.byHandHere(id),
      history: this.extras.histories?.get(id),
    };
    const endsByRule = isRuled ? { endsByRule: this.endsByRule(row, revisions) } : {};
    return { typeId, entry: { ...entry, ...endsByRule } };
  }

  /** What is shown of an entry, as plans, and what that is. */
  private shown(
    row: EntryRow,
    stored: readonly StoredRevision[],
    isRuled: boolean,
  ): Pick<StoredEntry['entry'], 'revisions' | 'plans'> {
    const { id, deleted } = row;
    const { site, edition } = (this.speech ?? this.designs.first).design;
    const own = edition?.own ?? site.language;
    const revisions = stored.map((r): Revision => ({ ...r, values: readValues(r.values, own) }));
    const ends: Plan[] =
      deleted === null ? [] : [{ at: deleted, sequence: 0, do: 'retire', revision: null }];
    const ruled = isRuled ? this.byRules(row, revisions) : [];
    const planned = this.sql<StoredPlan>(
      `SELECT at, sequence, action AS "do", revision, language FROM planned_change WHERE entry = ? AND at < ${UNTIL_DELETED} ORDER BY at, sequence`,
    ).all(id);
    if (!this.speech) return { revisions, plans: inOrder([...planned, ...ends, ...ruled]) };
    const all = inOrder([
      ...planned,
      ...ends.map((plan) => ({ ...plan, language: site.language })),
      ...ruled.map((plan) => ({ ...plan, language: own })),
    ]);
    const facts = { id, revisions: stored, plans: all };
    const shown = inLanguage(this.connection, this.speech, facts);
    // Where nothing is left to be shown, what was live ends all the same.
    const over = ends.filter(({ at }) => shown.plans.every((plan) => plan.at !== at));
    return {
      revisions: shown.revisions,
      plans: this.fromStart(id, inOrder([...shown.plans, ...over]), shown.codeAt),
    };
  }

  /** What is to be shown when the language comes in, and is not, is so from then on. */
  private fromStart(id: string, plans: readonly Plan[], codeAt: InLanguage['codeAt']): Plan[] {
    if (this.designs.language === undefined || this.start === BEGINNING) return [...plans];
    const arrivals = arrivalsOf(this.connection, this.designs, this.start);
    const added = arrivals.flatMap(({ at, of }): Plan[] => {
      const wanted = codeAt(at);
      const stands = this.standing(id, at).live?.revision ?? null;
      const isPlanned = wanted === stands || plans.some((plan) => plan.at === at);
      const isOther = of === 'fallback' && !isFallback(wanted) && !isFallback(stands);
      return isPlanned || isOther ? [] : [planOf(at, wanted)];
    });
    return inOrder([...plans, ...added]);
  }

  /** Of the addresses set by hand those that stand below the root of the language. */
  private byHandHere(id: string): ByHand[] {
    const all = this.sql<ByHand>(
      'SELECT path, starts AS "from", ends AS "to" FROM by_hand WHERE entry = ? ORDER BY id',
    ).all(id);
    if (!this.speech) return all;
    const { design, roots } = this.speech;
    const isBelow = (above: string, path: string): boolean => path.startsWith(`${above}/`);
    const root = design.edition?.root;
    return all.filter(({ path }) =>
      root === undefined ? !roots.some((other) => isBelow(other, path)) : isBelow(root, path),
    );
  }
}
