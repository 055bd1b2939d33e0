import type { Connection, Statement } from '../db/connection.ts';
import type { AddressRules } from '@/core/address/rules.ts';
import type { Media, Subject, Values } from '@/core/design/values.ts';
import { endingByRules, publicationsByRules } from '@/core/timing/plans.ts';
import {
  type AddressHistory,
  type Standing,
  type TimelineEntry,
  type TimelineSource,
  freshStanding,
} from '@/core/address/model.ts';
import type { Plan, Revision } from '@/core/publication/model.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type DesignsAhead, rulesOver, siteAt, sitesOf } from './designs-ahead.ts';
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

/** An entry as it is stored, and as it is of its type in the design asked for last. */
interface StoredEntry {
  typeId: string;
  entry: Omit<TimelineEntry, 'type'>;
  as?: TimelineEntry;
}

/** Reads entries, and how they stand at an instant, for the simulation; each entry once. */
export class StoredTimeline implements TimelineSource {
  private readonly entries = new Map<string, StoredEntry | undefined>();
  /** Paths that were asked for. */
  readonly asked = new Set<string>();
  private readonly subjects = new Map<string, Subject | null>();
  private readonly addressFields: string[];
  private readonly ruled: ReadonlySet<string>;

  constructor(
    private readonly connection: Connection,
    private readonly designs: DesignsAhead,
    private readonly extras: TimelineExtras = {},
  ) {
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
    if (stored.as?.type !== type) stored.as = this.asOfType(stored.entry, type, at);
    return stored.as;
  }

  private asOfType(
    entry: StoredEntry['entry'],
    type: TimelineEntry['type'],
    at: Instant,
  ): TimelineEntry {
    const { site } = siteAt(this.designs, at).design;
    const revisions = entry.revisions.map((revision) => ({
      ...revision,
      values: valuesAs(type.fields, revision.values, site),
    }));
    return { ...entry, revisions, type };
  }

  mayAct(id: string, at: Instant): boolean {
    if (this.entries.has(id)) return true;
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
    const live = this.sql<{ revision: number; starts: number }>(
      `SELECT revision, starts FROM live_interval WHERE entry = ? AND ${asOf('')}`,
    ).get(id, at, at);
    const last =
      live ??
      this.sql<{ revision: number; starts: number }>(
        'SELECT revision, starts FROM live_interval WHERE entry = ? AND starts <= ? ORDER BY starts DESC LIMIT 1',
      ).get(id, at);
    if (!last) return freshStanding();
    const addresses = this.sql<{ path: string; base: string; starts: number; ends: number | null }>(
      `SELECT path, base, starts, ends FROM address WHERE entry = ? AND role = 'current' AND starts <= ? ORDER BY starts DESC LIMIT 1`,
    ).get(id, at);
    const holds = addresses && (addresses.ends === null || addresses.ends > at);
    return {
      live: live ? { revision: live.revision, from: live.starts } : null,
      held: holds ? this.held(id, addresses, at) : null,
      published: this.sql<number | null>(
        'SELECT CASE WHEN published <= ? THEN published END FROM entry WHERE id = ?',
      )
        .pluck()
        .get(at, id)!,
      lastRevision: last.revision,
      lastHeld: addresses ? { path: addresses.path, base: addresses.base } : null,
    };
  }

  private held(
    id: string,
    { path, base, starts: from }: { path: string; base: string; starts: number },
    at: Instant,
  ): Standing['held'] {
    const refused = this.sql<string | null>(
      `SELECT base FROM refusal WHERE entry = ? AND at BETWEEN ? AND ? AND cancelled = 0 AND code <> 'nothing-left' ORDER BY at DESC LIMIT 1`,
    )
      .pluck()
      .get(id, from, at);
    return { path, base, from, refused: refused ?? null };
  }

  holder(path: string, at: Instant): string | null {
    this.asked.add(path);
    return (
      this.sql<string>(
        `SELECT entry FROM address WHERE path = ? AND role = 'current' AND ${asOf('')}`,
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
    const id = siteAt(this.designs, at).setIds.get(set);
    const name = `${set}\n${key}\n${at}`;
    let found = this.subjects.get(name);
    if (found !== undefined) return found;
    found = id === undefined ? null : subjectAt(this.connection, id, key, at);
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
   * An entry with what the timing rules of its type do to it, each in the design of its time; to
   * one that is deleted they do nothing from then on.
   */
  private withRules(
    entry: StoredEntry['entry'],
    typeId: string,
    deleted: Instant | null,
  ): StoredEntry['entry'] {
    const over = rulesOver(this.designs, typeId);
    const { id, created } = entry;
    const revisions = entry.revisions.map((revision) => ({
      ...revision,
      values: this.asOfAll(typeId, revision.values),
    }));
    const values = new Map(revisions.map((revision) => [revision.number, revision.values]));
    const byRules = publicationsByRules({ entry: id, created, revisions }, over).filter(
      ({ at }) => deleted === null || at < deleted,
    );
    const plans = [...entry.plans, ...byRules].sort(
      (a, b) => a.at - b.at || a.sequence - b.sequence,
    );
    return {
      ...entry,
      plans,
      endsByRule: (live, published, after) => {
        const looked = { entry: id, created, published, values: values.get(live.revision) ?? {} };
        return endingByRules(looked, { live: live.from, after }, over);
      },
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
    const row = this.sql<{
      type: string;
      created: number;
      author: string;
      deleted: number | null;
    }>('SELECT type, created, author, deleted FROM entry WHERE id = ?').get(id);
    if (!row) return undefined;
    const { language } = this.designs.first.design.site;
    const revisions = this.sql<{ number: number; saved: number; author: string; values: string }>(
      'SELECT number, saved, author, "values" FROM revision WHERE entry = ? ORDER BY number',
    )
      .all(id)
      .map((r): Revision => ({
        ...r,
        values: readValues(r.values, language),
      }));
    const plans = this.sql<Plan>(
      `SELECT at, sequence, action AS "do", revision FROM planned_change WHERE entry = ? AND at < ${UNTIL_DELETED} UNION ALL SELECT deleted, 0, 'retire', NULL FROM entry WHERE id = ? AND deleted IS NOT NULL ORDER BY at, sequence`,
    ).all(id, id);
    const byHand = this.sql<{ path: string; from: number; to: number | null }>(
      'SELECT path, starts AS "from", ends AS "to" FROM by_hand WHERE entry = ? ORDER BY id',
    ).all(id);
    const history = this.extras.histories?.get(id);
    const { type: typeId, created, author, deleted } = row;
    const entry = { id, created, author, revisions, plans, byHand, history };
    const isRuled = this.isRuled(typeId);
    return { typeId, entry: isRuled ? this.withRules(entry, typeId, deleted) : entry };
  }
}
