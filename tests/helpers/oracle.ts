import type { Files } from './folder.ts';

/**
 * Who stands where, worked out a second time from the words of the rules alone: no code is shared
 * with the program, no rows are kept, and every instant is gone through from the first one on.
 */

interface Entry {
  id: string;
  type: 'grower' | 'variety' | 'page' | 'event' | 'part';
  created: number;
  revisions: { saved: number; values: Record<string, unknown> }[];
  plans: { at: number; do: 'publish' | 'retire' }[];
  byHand: { path: string; from: number; to: number }[];
}

interface State {
  live: number | null;
  last: number | null;
  path: string | null;
  base: string | null;
  lastPath: string | null;
  lastBase: string | null;
  /** The base that was refused last while the address is held. */
  refused: string | null;
}

/** A bare date is its start in Dublin, an hour before that of UTC in summer. */
const ms = (text: string): number =>
  text.length > 10
    ? Date.parse(text)
    : Date.parse(`${text}T00:00:00Z`) -
      (text > '2026-03-29' && text <= '2026-10-25' ? 3_600_000 : 0);
const RESERVED = ['/all', '/now', '/tall', '/families', '/days'];
const slug = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

type Raw = {
  entry: {
    id: string;
    created: string;
    saved: string;
    live: { from: string; to: string | null }[];
    plans?: { at: string; do: 'publish' }[];
    revisions?: { saved: string; values: object }[];
    address?: { path: string; from: string; to: string | null }[];
  };
} & Record<string, unknown>;

/** The entries of a site's files, as the rules speak of them. */
export function read(files: Files): Entry[] {
  return Object.entries(files).flatMap(([file, content]) => {
    const type = /^entries\/(\w+)\//.exec(file)?.[1] as Entry['type'] | undefined;
    if (!type) return [];
    const { entry, ...values } = content as Raw;
    const intervals = [...entry.live].sort((a, b) => ms(a.from) - ms(b.from));
    const plans = [
      ...intervals.flatMap((l) => [
        { at: ms(l.from), do: 'publish' as const },
        ...(l.to === null ? [] : [{ at: ms(l.to), do: 'retire' as const }]),
      ]),
      ...(entry.plans ?? []).map((p) => ({ at: ms(p.at), do: p.do })),
    ];
    return [
      {
        id: entry.id,
        type,
        created: ms(entry.created),
        revisions: [
          ...(entry.revisions ?? []).map((r) => ({
            saved: ms(r.saved),
            values: { ...values, ...r.values },
          })),
          { saved: ms(entry.saved), values },
        ],
        plans,
        byHand: (entry.address ?? []).map((a) => ({
          path: a.path,
          from: ms(a.from),
          to: a.to === null ? Infinity : ms(a.to),
        })),
      },
    ];
  });
}

/** From an instant on: paths by entry, and the path by pattern of what stands at "/". */
interface Moment {
  at: number;
  paths: Map<string, string>;
  frontPattern: string | null;
}

/** A site that the rules refuse to load. */
export class Refused extends Error {}

/** The second reckoning of one site. */
export class Oracle {
  readonly states = new Map<string, State>();
  readonly history: Moment[] = [];
  private now = 0;
  /** Whether somebody went without an address in the pass at hand. */
  private fatal = false;
  /** Whether an address by hand was in the way in the pass at hand, or could not be had. */
  private inTheWay = false;

  constructor(
    private readonly entries: Entry[],
    private readonly front: string | null,
  ) {
    for (const e of entries)
      this.states.set(e.id, {
        live: null,
        last: null,
        path: null,
        base: null,
        lastPath: null,
        lastBase: null,
        refused: null,
      });
    const instants = new Set(
      entries.flatMap((e) => [
        ...e.plans.map((p) => p.at),
        ...e.revisions.map((r) => r.saved),
        ...e.byHand.flatMap((h) => [h.from, h.to]),
      ]),
    );
    for (const at of [...instants].filter(Number.isFinite).sort((a, b) => a - b)) this.instant(at);
  }

  /**
   * What a path answers in a moment: who stands there, else where the latest who stood there is
   * now. Null where two left it at once.
   */
  answer(path: string, i: number): string | null {
    const { paths, frontPattern } = this.history[i]!;
    if ([...paths.values()].includes(path)) return '200';
    if (frontPattern === path) return '308 /';
    for (let back = i - 1; back >= 0; back--) {
      const then = this.history[back]!;
      const held = [...then.paths].find(([, p]) => p === path)?.[0];
      if (held !== undefined && then.frontPattern === path) return null;
      const who = held ?? (then.frontPattern === path ? this.front! : undefined);
      if (who !== undefined) return paths.has(who) ? `308 ${paths.get(who)}` : '410';
    }
    return '404';
  }

  private entry(id: unknown): Entry | undefined {
    return this.entries.find((e) => e.id === id);
  }

  private instant(at: number): void {
    this.now = at;
    for (const e of this.entries) {
      const s = this.states.get(e.id)!;
      for (const plan of e.plans.filter((p) => p.at === at)) {
        const newest = e.revisions.findLastIndex((r) => r.saved <= at);
        if (plan.do === 'retire') s.live = null;
        else if (newest >= 0) s.live = newest;
      }
      if (s.live !== null) s.last = s.live;
    }
    // Who moves is known only once all have been dealt, so the instant is gone through until
    // nobody else moves.
    // Who is refused another address keeps the one held: the instant is gone through again
    // without that claim.
    const moving = new Set<string>();
    const kept = new Map<string, string>();
    for (;;) {
      this.fatal = false;
      this.inTheWay = false;
      const before = new Map([...this.states].map(([id, s]) => [id, { ...s }]));
      const refused = this.deal(moving, kept);
      const late = this.entries.filter((e) => !moving.has(e.id) && this.wouldMove(e, kept));
      if (late.length === 0 && this.inTheWay) throw new Refused();
      if (late.length === 0 && refused.size === 0) {
        if (this.fatal) throw new Refused();
        break;
      }
      for (const e of late) moving.add(e.id);
      if (late.length === 0) for (const [id, base] of refused) kept.set(id, base);
      for (const [id, s] of before) this.states.set(id, s);
    }
    const front = this.front === null ? undefined : this.states.get(this.front);
    this.history.push({
      at,
      paths: new Map(
        [...this.states].flatMap(([id, s]) => (s.path === null ? [] : [[id, s.path] as const])),
      ),
      frontPattern: front?.path === '/' ? front.base!.slice('front '.length) : null,
    });
  }

  /** Whether a live entry holds another address than the one it should have, refused ones aside. */
  private wouldMove(e: Entry, kept: ReadonlyMap<string, string>): boolean {
    const s = this.states.get(e.id)!;
    const base = this.wanted(e);
    if (s.live === null || s.path === null || kept.has(e.id) || base === s.base) return false;
    if (base === s.refused) return false;
    s.refused = null;
    const hand = (b: string | null): boolean => b?.startsWith('hand ') ?? false;
    const goesOn = base === `hand ${s.path}` || (hand(s.base) && base === s.path);
    return !goesOn || hand(base) === hand(s.base);
  }

  /** Gives who was refused another address while holding one, with the base refused. */
  private deal(
    moving: ReadonlySet<string>,
    kept: ReadonlyMap<string, string>,
  ): Map<string, string> {
    const claims: Entry[] = [];
    const held = new Set<string>();
    const refused = new Map<string, string>();
    for (const [id, base] of kept) this.states.get(id)!.refused = base;
    for (const e of this.entries) {
      const s = this.states.get(e.id)!;
      const moves = moving.has(e.id) && !kept.has(e.id);
      if (moves) held.add(e.id);
      if (s.path !== null && (s.live === null || moves || this.wanted(e) === ''))
        Object.assign(s, {
          lastPath: s.path,
          lastBase: s.base,
          path: null,
          base: null,
          refused: null,
        });
      if (s.live !== null && s.path === null && this.wanted(e) !== '') claims.push(e);
    }
    claims.sort((a, b) => a.created - b.created || (a.id < b.id ? -1 : 1));
    const dealt = new Set<string>();
    // The pages it is built on come first, through those that lend their unnumbered path too.
    const drawForward = (e: Entry, above: Entry[] = []): void => {
      const parent = e.type === 'page' ? this.entry(this.view(e).inside) : undefined;
      if (!parent || above.includes(parent)) return;
      if (claims.includes(parent)) return claim(parent);
      const s = this.states.get(parent.id)!;
      const isBuilt = s.path === null && s.lastPath === null;
      if (isBuilt && this.hand(parent) === undefined) drawForward(parent, [...above, e]);
    };
    const claim = (e: Entry): void => {
      if (dealt.has(e.id)) return;
      dealt.add(e.id);
      // An address by hand is built on nobody.
      if (e.id === this.front || this.hand(e) === undefined) drawForward(e);
      const s = this.states.get(e.id)!;
      const base = this.wanted(e);
      const path = this.free(e, base, s);
      if (path !== null) Object.assign(s, { path, base });
      else if (held.has(e.id)) refused.set(e.id, base);
      else this.fatal = true;
    };
    claims.forEach(claim);
    return refused;
  }

  /**
   * The address for a base; null where it is refused. What is set by hand and taken refuses the
   * whole site.
   */
  private free(e: Entry, base: string, s: State): string | null {
    const taken = (path: string): boolean =>
      (path !== '/' && RESERVED.includes(path)) ||
      /^\/(build|api|media|style)(\/|$)/.test(path) ||
      [...this.states].some(([id, other]) => id !== e.id && other.path === path);
    if (base.startsWith('front ')) return '/';
    if (base.startsWith('hand ')) {
      if (!taken(base.slice(5))) return base.slice(5);
      this.inTheWay = true;
      return null;
    }
    if (e.type === 'event') {
      if (!taken(base)) return base;
      const holder = [...this.states.values()].find((other) => other.path === base);
      if (holder?.base?.startsWith('hand ')) this.inTheWay = true;
      return null;
    }
    if (s.lastBase === base && s.lastPath !== null && !taken(s.lastPath)) return s.lastPath;
    for (let n = 1; ; n++)
      if (!taken(n === 1 ? base : `${base}-${n}`)) return n === 1 ? base : `${base}-${n}`;
  }

  /** The base an entry should have now; by hand and at "/" it is marked as such. */
  private wanted(e: Entry): string {
    if (e.id === this.front) return `front ${this.pattern(e)}`;
    const hand = this.hand(e);
    return hand === undefined ? this.pattern(e) : `hand ${hand}`;
  }

  private hand(e: Entry): string | undefined {
    return e.byHand.findLast((h) => h.from <= this.now && this.now < h.to)?.path;
  }

  /** Live then, else last live, else next to go live, else newest saved. */
  private view(e: Entry): Record<string, unknown> {
    const s = this.states.get(e.id)!;
    // Of several plans at one instant the last one decides whether it goes live.
    const ahead = [...new Set(e.plans.map((p) => p.at))].sort((a, b) => a - b);
    const next = ahead.find(
      (t) =>
        t > this.now &&
        e.plans.findLast((p) => p.at === t)!.do === 'publish' &&
        e.revisions.some((r) => r.saved <= t),
    );
    const nextIndex = next === undefined ? null : e.revisions.findLastIndex((r) => r.saved <= next);
    const newest = e.revisions.findLastIndex((r) => r.saved <= this.now);
    const index = s.live ?? s.last ?? nextIndex ?? (newest >= 0 ? newest : null);
    return index === null ? {} : e.revisions[index]!.values;
  }

  private word(e: Entry, text: unknown): string {
    return slug(String(text)) || `${e.type}-${e.id.slice(0, 6)}`;
  }

  private pattern(e: Entry): string {
    if (e.type === 'part') return '';
    const values = this.view(e);
    const title = this.word(e, values.title);
    if (e.type === 'grower') return `/growers/${title}`;
    if (e.type === 'event') return `/events/${title}`;
    if (e.type === 'page') {
      const parent = this.entry(values.inside);
      return `${parent ? this.pathOfParent(parent) : ''}/${title}`;
    }
    const grower = this.entry(values.grower);
    return `/${grower ? this.word(e, this.view(grower).title) : 'seeds'}/${title}`;
  }

  private pathOfParent(parent: Entry): string {
    if (parent.id === this.front) return '';
    const s = this.states.get(parent.id)!;
    // Never live so far, or live and not dealt an address yet: the one by hand is what it gets.
    const isNew = s.last === null || s.live !== null;
    const hand = isNew ? this.hand(parent) : undefined;
    const path = s.path ?? (s.live === null ? s.lastPath : null) ?? hand ?? this.pattern(parent);
    return path;
  }
}
