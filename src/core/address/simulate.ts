import { compareCodePoints } from '../text.ts';
import { type Instant, covers } from '../time/interval.ts';
import type { TracedPart } from '../pattern/compile.ts';
import { applyPlans } from '../publication/plans.ts';
import { type AddressReads, addressScope, addressView } from './address-scope.ts';
import { type BuiltPath, buildPath, fallbackSlug } from './build.ts';
import { isReserved, splitPageNumber } from './path.ts';
import type { AddressRules } from './rules.ts';
import {
  type Refusal,
  type Standing,
  type Timeline,
  type TimelineEntry,
  type TimelineEvents,
  type TimelineSource,
} from './timeline.ts';

/**
 * Runs publications and addresses forward through their events and returns the rows they make.
 * At one instant all endings come first, then claims by created, then id, parents before children.
 */
export function simulate(
  rules: AddressRules,
  source: TimelineSource,
  events: TimelineEvents,
): Timeline {
  const simulation = new Simulation(rules, source);
  for (const at of [...events.keys()].sort((a, b) => a - b))
    simulation.instant(at, events.get(at)!);
  return simulation.finish();
}

/** What an address pattern makes of an entry as it stands, piece by piece, unnumbered, before any clash is looked at. */
export function explainBase(
  rules: AddressRules,
  source: TimelineSource,
  id: string,
  at: Instant,
): ExplainedBase | null {
  return new Simulation(rules, source).explain(id, at);
}

/** An unnumbered path with the pieces it was put together from. */
export interface ExplainedBase {
  built: BuiltPath;
  parts: TracedPart[];
}

/** Why a path cannot be dealt to an entry; null where it can. */
function notToBeDealt(rules: AddressRules, path: string): string | null {
  if (isReserved(path)) return 'the site keeps it for itself';
  if (rules.listingAddresses.has(path)) return 'a listing stands there';
  const page = splitPageNumber(path);
  return page && rules.listingAddresses.has(page.address) ? 'a listing’s pages stand there' : null;
}

type Answer = 'asking' | boolean;

class Simulation {
  private readonly standings = new Map<string, Standing>();
  private readonly holders = new Map<string, string | null>();
  private readonly numberHints = new Map<string, number>();
  private readonly timeline: Timeline = {
    live: [],
    addresses: [],
    published: new Map(),
    refusals: [],
    touched: new Set(),
  };
  private readonly reads: AddressReads;
  private now: Instant = 0;
  private affected = new Set<string>();
  private released = new Map<string, Answer>();
  private pending = new Set<string>();
  private before = new Map<string, Standing>();
  /** Entries found to move although nothing of their own says so. */
  private moving = new Set<string>();
  private building = new Set<string>();
  private cyclic = false;
  /** The pieces of the base built last. */
  private parts: TracedPart[] = [];
  private path: (id: string) => string | null = (id) => this.standingPath(id);

  constructor(
    private readonly rules: AddressRules,
    private readonly source: TimelineSource,
  ) {
    const { site } = rules.design;
    this.reads = {
      language: site.language,
      zone: site.zone,
      siteRoot: site,
      view: (id) => this.view(id),
      subject: (set, key) => source.subject(set, key),
      media: (id) => source.media(id),
      pathOf: (id) => {
        const path = this.path(id);
        return path === '/' ? null : path;
      },
    };
  }

  /**
   * One instant: plans, then endings, then claims. What others are built on may get another path only
   * when it is dealt, so where that can be, a rehearsal finds who has to move as well.
   */
  instant(at: Instant, ids: ReadonlySet<string>): void {
    this.begin(at, ids, new Set());
    let claims = this.claims();
    while (claims.some((entry) => this.rules.builtOn.has(entry.type.key))) {
      const late = this.rehearse(ids);
      if (late.length === 0) break;
      for (const id of late) this.moving.add(id);
      claims = this.claims();
    }
    this.deal(claims);
  }

  private begin(at: Instant, ids: ReadonlySet<string>, moving: ReadonlySet<string>): void {
    this.now = at;
    this.moving = new Set(moving);
    this.before.clear();
    for (const id of ids) this.applyPlansOf(id);
    this.affected = this.withDependents(ids);
  }

  /** Entries that keep their address, and would have another base once the others have been dealt theirs. */
  private rehearse(ids: ReadonlySet<string>): string[] {
    const { source } = this;
    const rehearsal = new Simulation(this.rules, {
      entry: (id) => source.entry(id),
      standing: (id) => ({ ...(this.before.get(id) ?? this.standing(id)) }),
      holder: (path) => this.holderOf(path),
      dependents: (id) => source.dependents(id),
      subject: (set, key) => source.subject(set, key),
      media: (id) => source.media(id),
    });
    rehearsal.begin(this.now, ids, this.moving);
    rehearsal.deal(rehearsal.claims());
    return [...rehearsal.affected].filter((id) => rehearsal.hasOtherBase(id));
  }

  private hasOtherBase(id: string): boolean {
    const { live, held } = this.standing(id);
    if (!live || !held || held.from === this.now) return false;
    const wanted = this.wanted(id);
    return wanted.ok && wanted.base !== held.base;
  }

  /** Closes what runs on, and gives all rows. */
  finish(): Timeline {
    for (const [id, standing] of this.standings) {
      if (standing.live) this.closeLive(id, standing.live, null);
      if (standing.held) this.closeHeld(id, standing.held, null);
      if (this.timeline.touched.has(id)) this.timeline.published.set(id, standing.published);
    }
    const { live, addresses } = this.timeline;
    this.timeline.live = live.filter((row) => this.timeline.touched.has(row.entry));
    this.timeline.addresses = addresses.filter((row) => this.timeline.touched.has(row.entry));
    return this.timeline;
  }

  explain(id: string, at: Instant): ExplainedBase | null {
    this.now = at;
    const built = this.base(id);
    return built && { built, parts: this.parts };
  }

  private standing(id: string): Standing {
    let standing = this.standings.get(id);
    if (!standing) this.standings.set(id, (standing = { ...this.source.standing(id) }));
    return standing;
  }

  private applyPlansOf(id: string): void {
    const entry = this.source.entry(id);
    if (!entry) return;
    const standing = this.standing(id);
    const plans = entry.plans.filter((plan) => plan.at === this.now);
    const after = applyPlans(standing.live?.revision ?? null, plans, entry.revisions);
    if (after === (standing.live?.revision ?? null)) return;
    this.touch(id);
    this.before.set(id, { ...standing });
    if (standing.live) this.closeLive(id, standing.live, this.now);
    standing.live = after === null ? null : { revision: after, from: this.now };
    if (after === null) return;
    standing.published ??= this.now;
    standing.lastRevision = after;
  }

  private touch(id: string): void {
    this.timeline.touched.add(id);
  }

  private withDependents(ids: Iterable<string>): Set<string> {
    const all = new Set(ids);
    for (const id of all) for (const dependent of this.source.dependents(id)) all.add(dependent);
    return all;
  }

  /** The live entries that need an address, or another one, in the order in which they claim it. */
  private claims(): TimelineEntry[] {
    this.released.clear();
    const claims: TimelineEntry[] = [];
    for (const id of this.affected) {
      const entry = this.source.entry(id);
      if (!entry || !this.rules.byType.has(entry.type.key)) continue;
      const { live, held } = this.standing(id);
      if (live && (!held || this.isReleased(id))) claims.push(entry);
    }
    return claims.sort((a, b) => a.created - b.created || compareCodePoints(a.id, b.id));
  }

  /** Ends addresses of retired entries and of those that move; then deals new ones. */
  private deal(claims: TimelineEntry[]): void {
    for (const id of this.affected) {
      const standing = this.standing(id);
      if (standing.held && !standing.live) this.release(id, standing);
    }
    for (const { id } of claims) if (this.standing(id).held) this.release(id, this.standing(id));
    this.pending = new Set(claims.map((entry) => entry.id));
    for (const entry of claims) this.claimPending(entry.id);
  }

  /** Whether a live entry's address certainly ends now: its base changed, or a page it builds on moves. */
  private isReleased(id: string): boolean {
    const known = this.released.get(id);
    if (known !== undefined) return known === true;
    const standing = this.standing(id);
    if (!standing.held || !standing.live || !this.affected.has(id)) return false;
    if (this.moving.has(id)) return true;
    this.released.set(id, 'asking');
    let builtOnMoving = false;
    const outer = this.path;
    this.path = (other) => {
      if (this.isReleased(other)) builtOnMoving = true;
      return this.standingPath(other);
    };
    const wanted = this.wanted(id);
    this.path = outer;
    if (!wanted.ok) this.refuse(id, wanted, false);
    const moves = wanted.ok && (builtOnMoving || wanted.base !== standing.held.base);
    this.released.set(id, moves);
    return moves;
  }

  private release(id: string, standing: Standing): void {
    this.touch(id);
    const held = standing.held!;
    this.closeHeld(id, held, this.now);
    standing.lastHeld = { path: held.path, base: held.base };
    standing.held = null;
    this.holders.set(held.path, null);
    this.numberHints.clear();
  }

  private claimPending(id: string): void {
    if (!this.pending.delete(id)) return;
    const outer = this.path;
    this.path = (other) => {
      this.claimPending(other);
      return this.standingPath(other);
    };
    const wanted = this.wanted(id);
    this.path = outer;
    const standing = this.standing(id);
    this.touch(id);
    const dealt = wanted.ok ? this.pathFor(id, wanted, standing) : wanted;
    if (dealt.ok) this.hold(id, standing, dealt.path, dealt.base);
    else this.withoutAddress(id, standing, dealt);
  }

  private hold(id: string, standing: Standing, path: string, base: string): void {
    standing.held = { path, base, from: this.now };
    this.holders.set(path, id);
  }

  /** A stretch that cannot start is cancelled; one that runs keeps its former path where that is still free. */
  private withoutAddress(
    id: string,
    standing: Standing,
    why: Extract<Wanted, { ok: false }>,
  ): void {
    const was = this.before.get(id);
    const former = was && !was.live ? null : standing.lastHeld;
    if (former && !this.isTaken(former.path, id)) {
      this.refuse(id, why, false);
      return this.hold(id, standing, former.path, former.base);
    }
    this.refuse(id, why, true);
    if (standing.live && standing.live.from < this.now) this.closeLive(id, standing.live, this.now);
    standing.live = null;
    if (was) {
      standing.published = was.published;
      standing.lastRevision = was.lastRevision;
    }
  }

  private pathFor(id: string, wanted: Extract<Wanted, { ok: true }>, standing: Standing): Wanted {
    const { base, exact, clash } = wanted;
    if (exact) return this.isTaken(wanted.path, id) ? this.clashOf(wanted.path, id) : wanted;
    if (clash === 'refuse') return this.isTaken(base, id) ? this.clashOf(base, id) : wanted;
    const last = standing.lastHeld;
    if (last && last.base === base && !this.isTaken(last.path, id))
      return { ...wanted, path: last.path };
    return { ...wanted, path: this.lowestFree(base, id) };
  }

  private lowestFree(base: string, id: string): string {
    let n = this.numberHints.get(base) ?? 1;
    while (this.isTaken(n === 1 ? base : `${base}-${n}`, id)) n++;
    this.numberHints.set(base, n);
    return n === 1 ? base : `${base}-${n}`;
  }

  private clashOf(path: string, id: string): Extract<Wanted, { ok: false }> {
    const holder = this.holderOf(path);
    const why =
      holder !== null && holder !== id ? `"${holder}" has it` : notToBeDealt(this.rules, path);
    return {
      ok: false,
      code: 'clash',
      message: `The address ${path} is taken: ${why}.`,
      fix: 'Change the title or what else the address reads, retire the other, or let the type number clashing addresses.',
    };
  }

  private isTaken(path: string, id: string): boolean {
    if (path === '/') return false;
    const holder = this.holderOf(path);
    return (holder !== null && holder !== id) || notToBeDealt(this.rules, path) !== null;
  }

  private holderOf(path: string): string | null {
    const known = this.holders.get(path);
    return known === undefined ? this.source.holder(path) : known;
  }

  /** The address an entry should have now, before clashes. */
  private wanted(id: string): Wanted {
    const entry = this.source.entry(id)!;
    const byHand = entry.byHand.findLast((h) => covers(h, this.now));
    if (id === this.rules.frontEntry) {
      const base = this.base(id);
      return {
        ok: true,
        path: '/',
        base: base?.ok ? `front:${base.path}` : 'front:',
        exact: true,
        clash: 'number',
      };
    }
    if (byHand)
      return {
        ok: true,
        path: byHand.path,
        base: `hand:${byHand.path}`,
        exact: true,
        clash: 'refuse',
      };
    const base = this.base(id)!;
    if (base.ok)
      return { ok: true, path: base.path, base: base.path, exact: false, clash: entry.type.clash };
    if (this.cyclic)
      return {
        ok: false,
        code: 'cycle',
        message: 'The pages it sits within lead back to itself.',
        fix: 'Let one of them sit within another page.',
      };
    return {
      ok: false,
      code: 'blank-segment',
      message: `Its address would have an empty part: {${base.blank}} is blank.`,
      fix: 'Fill the field, or make that part of the pattern optional with [ ].',
    };
  }

  /** The unnumbered path by pattern, as the entry stands; null for a type without addresses. */
  private base(id: string): BuiltPath | null {
    const entry = this.source.entry(id);
    const rule = entry && this.rules.byType.get(entry.type.key);
    if (!entry || !rule) return null;
    const view = this.view(id);
    if (!view) return { ok: false, blank: entry.type.naming };
    if (this.building.has(id)) {
      this.cyclic = true;
      return { ok: false, blank: 'within' };
    }
    const outermost = this.building.size === 0;
    if (outermost) this.cyclic = false;
    this.building.add(id);
    const parts = rule.pattern.trace(addressScope(this.reads, view));
    this.parts = parts;
    this.building.delete(id);
    if (this.cyclic && outermost) return { ok: false, blank: 'within' };
    const { language } = this.reads;
    return buildPath(parts, language, fallbackSlug(entry.type.key, id, language));
  }

  private view(id: string): ReturnType<typeof addressView> {
    const entry = this.source.entry(id);
    return entry ? addressView(entry, this.standing(id), this.now) : null;
  }

  /** The path others build upon: the current one, else the last held, else the unnumbered base. */
  private standingPath(id: string): string | null {
    if (this.building.has(id)) this.cyclic = true;
    const standing = this.standing(id);
    const held = standing.held ?? (this.pending.has(id) ? null : standing.lastHeld);
    if (held) return held.path;
    const base = this.base(id);
    return base?.ok ? base.path : null;
  }

  private closeLive(
    entry: string,
    { revision, from }: NonNullable<Standing['live']>,
    to: Instant | null,
  ): void {
    if (to !== null && to <= from) return;
    this.timeline.live.push({
      entry,
      language: this.reads.language,
      revision,
      sharedRevision: revision,
      from,
      to,
    });
  }

  private closeHeld(
    entry: string,
    { path, base, from }: NonNullable<Standing['held']>,
    to: Instant | null,
  ): void {
    if (to !== null && to <= from) return;
    const row = { entry, language: this.reads.language, from, to };
    this.timeline.addresses.push({ ...row, path, base, role: 'current' });
    if (path === '/' && base.length > 'front:'.length)
      this.timeline.addresses.push({
        ...row,
        path: base.slice('front:'.length),
        base,
        role: 'redirect',
      });
  }

  private refuse(id: string, why: Extract<Wanted, { ok: false }>, cancelled: boolean): void {
    const { code, message, fix } = why;
    const refusal: Refusal = { entry: id, at: this.now, code, message, fix, cancelled };
    const known = this.timeline.refusals.some((r) => r.entry === id && r.at === this.now);
    if (!known) this.timeline.refusals.push(refusal);
  }
}

type Wanted =
  | {
      ok: true;
      path: string;
      base: string;
      /** By hand or front: this path or none. */ exact: boolean;
      clash: 'number' | 'refuse';
    }
  | { ok: false; code: Refusal['code']; message: string; fix: string };
