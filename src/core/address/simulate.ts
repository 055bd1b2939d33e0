import { compareCodePoints } from '../text.ts';
import { drained, quietly } from '../little-by-little.ts';
import type { Instant } from '../time/interval.ts';
import { applyPlans } from '../publication/plans.ts';
import { Agenda } from './agenda.ts';
import { type Unwanted, type Wanted, Bases } from './bases.ts';
import type { ExplainedBase, Foreseen, RulesAt } from './foreseen.ts';
import type { Standing, Timeline, TimelineEntry, TimelineEvents, TimelineSource } from './model.ts';
import { type Dealt, isElsewhere, isSame, isSetByHand } from './held.ts';
import { Rows } from './rows.ts';
import type { AddressRules } from './rules.ts';
import { isBelowAny } from './path.ts';
import { lowestFree, notToBeDealt, numbered } from './taken.ts';
import { clashWith, keptBefore, nothingLeftOf } from './words.ts';

/**
 * Runs publications and addresses forward through their events and returns the rows they make. At
 * one instant all endings come first, then claims by created, then id, parents before children.
 */
export function simulate(...asked: Parameters<typeof simulating>): Timeline {
  return drained(simulating(...asked));
}

/** The same, little by little; it tells of each entry looked at that certainly moves. */
export function* simulating(
  rulesAt: RulesAt,
  source: TimelineSource,
  events: TimelineEvents,
): Generator<Foreseen | null, Timeline> {
  const agenda = new Agenda(events);
  let next = agenda.take();
  const simulation = new Simulation(rulesAt, source, next?.at ?? 0);
  for (; next; next = agenda.take()) {
    yield* simulation.instant(next.at, next.ids);
    for (const { at, entry } of simulation.endings()) agenda.add(at, entry);
  }
  return simulation.finish();
}

/**
 * What an address pattern makes of an entry as it stands, piece by piece, before any clash is
 * looked at.
 */
export function explainBase(
  rules: AddressRules,
  source: TimelineSource,
  id: string,
  at: Instant,
): ExplainedBase | null {
  return new Simulation(() => rules, source, at).explain(id);
}

type Answer = 'asking' | boolean;

/** Entries that keep the address they hold, with why they cannot have the one they should. */
type Kept = Map<string, Unwanted>;

class Simulation {
  rules: AddressRules;
  /** Entries that are played through, as they stand by now. */
  private readonly standings = new Map<string, Standing>();
  /** Others, as they stand at this instant. */
  private readonly others = new Map<string, Standing>();
  private readonly own = new Set<string>();
  private readonly holders = new Map<string, string | null>();
  private readonly numberHints = new Map<string, number>();
  private readonly rows: Rows;
  private readonly bases: Bases;
  private affected = new Set<string>();
  private released = new Map<string, Answer>();
  /** Entries whose addresses certainly move. */
  private readonly elsewhere = new Set<string>();
  private pending = new Set<string>();
  private before = new Map<string, Standing>();
  /** Entries found to move although nothing of their own says so. */
  private moving = new Set<string>();
  private kept: Kept = new Map();

  constructor(
    private readonly rulesAt: RulesAt,
    private readonly source: TimelineSource,
    public now: Instant,
  ) {
    this.rules = rulesAt(now);
    this.rows = new Rows(this.rules.design.site.language);
    this.bases = new Bases(source, this);
  }

  /**
   * One instant: plans, then endings, then claims. What others are built on may get another path
   * only when it is dealt, and what is claimed may be refused; where either can be, a rehearsal
   * finds who has to move as well, and who keeps the address it holds: nobody else is dealt it.
   */
  *instant(at: Instant, ids: ReadonlySet<string>): Generator<Foreseen | null, void> {
    this.begin(at, ids, new Set(), new Map());
    let claims = yield* this.claims();
    while (claims.some((entry) => this.needsRehearsal(entry))) {
      const { late, refused } = yield* this.rehearse(ids);
      if (late.length === 0 && refused.size === 0) break;
      for (const id of late) this.moving.add(id);
      // Who moves frees a path, so that only where nobody else does a refusal is one.
      if (late.length === 0) for (const [id, why] of refused) this.kept.set(id, why);
      claims = yield* quietly(this.claims());
    }
    yield* this.deal(claims);
  }

  /** When rules retire what this instant may have made live, or shows otherwise. */
  *endings(): Generator<Foreseen> {
    for (const id of this.affected) {
      const at = this.endOf(id, this.now);
      if (at !== null) yield { entry: id, at };
    }
  }

  /** When a rule retires what is live of an entry, after an instant; null where none does. */
  private endOf(id: string, after: Instant): Instant | null {
    const { live, published } = this.standing(id);
    const ends = live && this.source.entry(id, this.now)?.endsByRule;
    return ends ? ends(live!, published, after) : null;
  }

  /** Gives all rows, what runs on included. */
  finish(): Timeline {
    return this.rows.finish(this.standings);
  }

  explain(id: string): ExplainedBase | null {
    const built = this.bases.base(id);
    return built && { built, parts: this.bases.parts };
  }

  standing(id: string): Standing {
    const known = this.own.has(id) ? this.standings : this.others;
    let standing = known.get(id);
    if (!standing) known.set(id, (standing = { ...this.source.standing(id, this.now) }));
    return standing;
  }

  isPending(id: string): boolean {
    return this.pending.has(id);
  }

  private begin(at: Instant, ids: ReadonlySet<string>, moving: Set<string>, kept: Kept): void {
    if (at !== this.now) this.others.clear();
    this.now = at;
    this.rules = this.rulesAt(at);
    this.rows.speak(this.rules.design);
    this.moving = new Set(moving);
    this.kept = new Map(kept);
    this.before.clear();
    this.affected = this.withDependents(ids);
    for (const id of this.affected) this.own.add(id);
    for (const id of ids) if (this.source.mayAct(id, at)) this.applyPlansOf(id);
  }

  private needsRehearsal(entry: TimelineEntry): boolean {
    if (this.rules.builtOn.has(entry.type.key)) return true;
    if (!this.standing(entry.id).held) return false;
    return (
      entry.type.clash === 'refuse' ||
      this.bases.byHand(entry) !== undefined ||
      this.rules.byType.get(entry.type.key)?.firstSegment === null
    );
  }

  /**
   * Who would have another base once the others have been dealt theirs, and who would be refused
   * one.
   */
  private *rehearse(ids: ReadonlySet<string>): Generator<null, { late: string[]; refused: Kept }> {
    const { source, rules } = this;
    const reads: TimelineSource = {
      entry: (id, at) => source.entry(id, at),
      standing: (id) => this.before.get(id) ?? this.standing(id),
      mayAct: (id, at) => source.mayAct(id, at),
      holder: (path) => this.holderOf(path),
      dependents: (id) => source.dependents(id),
      subject: (set, key, at) => source.subject(set, key, at),
      media: (id) => source.media(id),
      step: () => source.step?.(),
    };
    const rehearsal = new Simulation(() => rules, reads, this.now);
    rehearsal.begin(this.now, ids, this.moving, this.kept);
    const claims = yield* quietly(rehearsal.claims());
    const refused = yield* rehearsal.deal(claims);
    return { late: [...rehearsal.affected].filter((id) => rehearsal.hasOtherBase(id)), refused };
  }

  private hasOtherBase(id: string): boolean {
    const { live, held } = this.standing(id);
    if (!live || !held || held.from === this.now || this.kept.has(id)) return false;
    const wanted = this.bases.wanted(id);
    return wanted.ok && !isSame(held, wanted);
  }

  private applyPlansOf(id: string): void {
    const entry = this.source.entry(id, this.now);
    if (!entry) return;
    const standing = this.standing(id);
    const plans = entry.plans.filter((plan) => plan.at === this.now);
    const before = standing.live?.revision ?? null;
    const planned = applyPlans(before, plans, entry.revisions);
    // Retirements by rules come last: they end what ran until now.
    const ends =
      planned !== null && planned === before && this.endOf(id, this.now - 1) === this.now;
    const after = ends ? null : planned;
    if (after === before) return;
    this.rows.touch(id);
    this.before.set(id, { ...standing });
    if (standing.live) this.rows.live(id, standing.live, this.now);
    standing.live = after === null ? null : { revision: after, from: this.now };
    if (after === null) return;
    standing.published ??= this.now;
    standing.lastRevision = after;
  }

  private withDependents(ids: Iterable<string>): Set<string> {
    const all = new Set(ids);
    for (const id of all) for (const dependent of this.source.dependents(id)) all.add(dependent);
    return all;
  }

  /** The live entries that need an address, or another one, in the order in which they claim it. */
  private *claims(): Generator<Foreseen | null, TimelineEntry[]> {
    this.released.clear();
    this.elsewhere.clear();
    const claims: TimelineEntry[] = [];
    for (const id of this.affected) {
      const entry = this.source.entry(id, this.now);
      if (entry && this.bases.hasAddress(entry)) {
        const { live, held } = this.standing(id);
        if (live && (!held || this.isReleased(id))) claims.push(entry);
      }
      yield this.elsewhere.has(id) ? { entry: id, at: this.now } : null;
    }
    return claims.sort((a, b) => a.created - b.created || compareCodePoints(a.id, b.id));
  }

  /**
   * Ends addresses of retired entries and of those that move; then deals new ones. Gives who was
   * refused another.
   */
  private *deal(claims: TimelineEntry[]): Generator<null, Kept> {
    for (const [id, why] of this.kept) this.keep(id, why);
    for (const id of this.affected) {
      const standing = this.standing(id);
      const entry = this.source.entry(id, this.now);
      const none = !standing.live || (entry && !this.bases.hasAddress(entry));
      if (standing.held && none) this.release(id, standing);
    }
    const moved = new Set(claims.filter(({ id }) => this.standing(id).held).map(({ id }) => id));
    for (const id of moved) this.release(id, this.standing(id));
    this.pending = new Set(claims.map((entry) => entry.id));
    const refused: Kept = new Map();
    for (const entry of claims) {
      this.claimPending(entry.id, moved, refused);
      yield null;
    }
    return refused;
  }

  /**
   * Whether a live entry's address certainly ends now: its base changed, or a page it builds on
   * moves.
   */
  private isReleased(id: string): boolean {
    const known = this.released.get(id);
    if (known !== undefined) return known === true;
    const standing = this.standing(id);
    if (!standing.held || !standing.live || !this.affected.has(id) || this.kept.has(id))
      return false;
    if (this.moving.has(id)) return true;
    this.released.set(id, 'asking');
    let builtOnMoving = false;
    const outer = this.bases.path;
    this.bases.path = (other) => {
      if (this.isReleased(other)) builtOnMoving = true;
      return this.bases.standingPath(other);
    };
    const wanted = this.bases.wanted(id);
    this.bases.path = outer;
    if (!wanted.ok && wanted.base !== standing.held.refused) this.keep(id, wanted);
    if (wanted.base !== standing.held.refused && wanted.ok)
      standing.held = { ...standing.held, refused: wanted.refused ?? null };
    const moves = wanted.ok && (builtOnMoving || !isSame(standing.held, wanted));
    this.released.set(id, moves);
    if (wanted.ok && moves && !builtOnMoving && isElsewhere(standing.held, wanted))
      this.elsewhere.add(id);
    return moves;
  }

  /** Keeps the address an entry holds although it should have another, and says why. */
  private keep(id: string, why: Unwanted): void {
    const standing = this.standing(id);
    this.refuse(id, why, false);
    if (standing.held) standing.held = { ...standing.held, refused: why.base };
  }

  private release(id: string, standing: Standing): void {
    this.rows.touch(id);
    const held = standing.held!;
    this.rows.held(id, held, this.now);
    standing.lastHeld = { path: held.path, base: held.base };
    standing.held = null;
    this.holders.set(held.path, null);
    this.numberHints.clear();
  }

  private claimPending(id: string, moved: ReadonlySet<string>, refused: Kept): void {
    if (!this.pending.delete(id)) return;
    const outer = this.bases.path;
    this.bases.path = (other) => {
      this.claimPending(other, moved, refused);
      return this.bases.standingPath(other);
    };
    const wanted = this.bases.wanted(id);
    this.bases.path = outer;
    const standing = this.standing(id);
    this.rows.touch(id);
    const dealt = wanted.ok ? this.pathFor(id, wanted, standing) : wanted;
    if (dealt.ok) return this.hold(id, standing, dealt);
    if (moved.has(id)) refused.set(id, dealt);
    this.withoutAddress(id, standing, dealt);
  }

  private hold(id: string, standing: Standing, dealt: Dealt): void {
    const { path, base, nothingLeft, refused = null } = dealt;
    standing.held = { path, base, from: this.now, refused };
    this.holders.set(path, id);
    if (refused !== null) this.refuse(id, keptBefore(refused, path), false);
    if (nothingLeft !== null) this.refuse(id, { ...nothingLeftOf(nothingLeft, path) }, false);
  }

  /**
   * A stretch that cannot start is cancelled; one that runs keeps its former path where that is
   * still free.
   */
  private withoutAddress(id: string, standing: Standing, why: Unwanted): void {
    const was = this.before.get(id);
    const former = was && !was.live ? null : standing.lastHeld;
    if (former && !this.isTaken(former.path, id)) {
      standing.held = { ...former, from: this.now, refused: null };
      this.holders.set(former.path, id);
      return this.keep(id, why);
    }
    this.refuse(id, why, true);
    if (standing.live && standing.live.from < this.now) this.rows.live(id, standing.live, this.now);
    standing.live = null;
    if (was) {
      standing.published = was.published;
      standing.lastRevision = was.lastRevision;
    }
  }

  private pathFor(id: string, wanted: Dealt, standing: Standing): Wanted {
    const { base, exact, clash } = wanted;
    // What was held was held, also where a listing stands today.
    if (wanted.refused !== undefined)
      return this.isHeldByOther(wanted.path, id) ? this.clashOf(wanted, id) : wanted;
    if (exact) return this.isTaken(wanted.path, id) ? this.clashOf(wanted, id) : wanted;
    if (clash === 'refuse' || isBelowAny(this.rules.otherRoots, base))
      return this.isTaken(base, id) ? this.clashOf(wanted, id) : wanted;
    const last = standing.lastHeld;
    if (last && last.base === base && !this.isTaken(last.path, id))
      return { ...wanted, path: last.path };
    const n = lowestFree(base, this.numberHints.get(base) ?? 1, (path) => this.isTaken(path, id));
    if (n === null) return this.clashOf(wanted, id);
    this.numberHints.set(base, n);
    return { ...wanted, path: numbered(base, n) };
  }

  private clashOf(dealt: Dealt, id: string): Unwanted {
    const holder = this.holderOf(dealt.path);
    const isHeld = holder !== null && holder !== id;
    const isByHand = isHeld && isSetByHand(this.standing(holder).held?.base ?? '');
    const why = isHeld ? `"${holder}" has it` : notToBeDealt(this.rules, dealt.path);
    return { ok: false, ...clashWith(dealt, why), byHand: dealt.exact || isByHand };
  }

  private isTaken(path: string, id: string): boolean {
    if (path === this.rules.root) return false;
    return this.isHeldByOther(path, id) || notToBeDealt(this.rules, path) !== null;
  }

  private isHeldByOther(path: string, id: string): boolean {
    const holder = this.holderOf(path);
    return holder !== null && holder !== id;
  }

  private holderOf(path: string): string | null {
    const known = this.holders.get(path);
    return known === undefined ? this.source.holder(path, this.now) : known;
  }

  private refuse(id: string, why: Omit<Unwanted, 'ok'>, cancelled: boolean): void {
    const { code, message, fix, base, byHand } = why;
    this.rows.refuse({ entry: id, at: this.now, code, message, fix, base, byHand, cancelled });
  }
}
