import type { TracedPart } from '../pattern/compile.ts';
import { below, within } from '../design/language-spec.ts';
import { type Instant, covers } from '../time/interval.ts';
import { type AddressReads, addressScope, addressView } from './address-scope.ts';
import { type BuiltPath, buildPath, fallbackSlug } from './build.ts';
import { MAX_PATH_BYTES } from './path.ts';
import type { HeldFact, Refusal, Standing, TimelineEntry, TimelineSource } from './model.ts';
import type { AddressRules } from './rules.ts';

/** How many pages deep a path is followed; deeper ones count as a circle. */
const MAX_DEPTH = 64;

/** The address an entry should have, before clashes; or why it can have none. */
export type Wanted =
  | {
      ok: true;
      path: string;
      base: string;
      /** By hand or front: this path or none. */
      exact: boolean;
      clash: 'number' | 'refuse';
      nothingLeft: string | null;
      /** Set for an address known to have been held: the base refused meanwhile, null for none. */
      refused?: string | null;
    }
  | Unwanted;
/** Why an entry can have no address, and the base it was to be dealt for. */
export type Unwanted = {
  ok: false;
  base: string;
  code: Refusal['code'];
  message: string;
  fix: string;
  byHand: boolean;
};

/** How entries stand while addresses are worked out. */
export interface Standings {
  readonly now: Instant;
  /** The rules of the design that holds now. */
  readonly rules: AddressRules;
  standing(id: string): Standing;
  /** Whether an address is being dealt to an entry, so that its former one says nothing. */
  isPending(id: string): boolean;
}

/** Works out which unnumbered address each entry should have as things stand. */
export class Bases {
  /** The path that others build upon; replaced while it is watched who is asked. */
  path: (id: string) => string | null = (id) => this.standingPath(id);
  /** The pieces of the base built last. */
  parts: TracedPart[] = [];
  private reads: AddressReads;
  private read: AddressRules;
  private readonly building = new Set<string>();
  private cyclic = false;

  constructor(
    private readonly source: TimelineSource,
    private readonly standings: Standings,
  ) {
    this.read = standings.rules;
    this.reads = this.readsOf(this.read);
  }

  /** The rules that hold now; another design may have taken over. */
  private get rules(): AddressRules {
    const { rules } = this.standings;
    if (rules !== this.read) [this.read, this.reads] = [rules, this.readsOf(rules)];
    return rules;
  }

  private entryNow(id: string): TimelineEntry | undefined {
    return this.source.entry(id, this.standings.now);
  }

  private readsOf({ design: { site }, frontEntry }: AddressRules): AddressReads {
    const { source } = this;
    return {
      language: site.language,
      zone: site.zone,
      siteRoot: site,
      view: (id) => this.view(id),
      subject: (set, key) => source.subject(set, key, this.standings.now),
      media: (id) => source.media(id),
      // What is chosen for "/" contributes nothing as a parent, live or not.
      pathOf: (id) => (id === frontEntry ? null : this.pathWithin(id)),
    };
  }

  /** Whether an entry has an address at all while it is live: by its type, by hand, or at "/". */
  hasAddress(entry: TimelineEntry): boolean {
    const known = this.known(entry);
    if (known !== undefined) return known !== null;
    return (
      this.rules.byType.has(entry.type.key) ||
      entry.id === this.rules.frontEntry ||
      this.byHand(entry) !== undefined
    );
  }

  /**
   * The address it is known to have held now; null where it held none, undefined where nothing is
   * known.
   */
  private known({ history }: TimelineEntry): HeldFact | null | undefined {
    const { now } = this.standings;
    if (!history || now >= history.until) return undefined;
    return history.held.find((fact) => covers(fact, now)) ?? null;
  }

  /** The address set by hand that holds now. */
  byHand(entry: TimelineEntry): string | undefined {
    return entry.byHand.findLast((h) => covers(h, this.standings.now))?.path;
  }

  /** The address an entry should have now. */
  wanted(id: string): Wanted {
    this.source.step?.();
    const entry = this.entryNow(id)!;
    const exact = { ok: true as const, exact: true, nothingLeft: null };
    const known = this.known(entry);
    if (known) {
      const { path, base, refused } = known;
      return { ...exact, path, base, refused, clash: 'refuse' };
    }
    if (id === this.rules.frontEntry) {
      const base = this.base(id);
      const pattern = base?.ok ? base.path : '';
      return { ...exact, path: this.rules.root, base: `front:${pattern}`, clash: 'number' };
    }
    const path = this.byHand(entry);
    if (path !== undefined) return { ...exact, path, base: `hand:${path}`, clash: 'refuse' };
    const base = this.base(id)!;
    if (!base.ok) return this.unwanted(base);
    const { clash } = entry.type;
    return { ...base, base: base.path, exact: false, clash };
  }

  private unwanted({ why, expression }: Extract<BuiltPath, { ok: false }>): Unwanted {
    if (this.cyclic)
      return {
        ok: false,
        base: '!cycle',
        code: 'cycle',
        message: 'The pages it sits within lead back to itself, or are too many.',
        fix: 'Let one of them sit within another page.',
        byHand: false,
      };
    if (why === 'too-long')
      return {
        ok: false,
        base: '!too-long',
        code: 'too-long',
        message: 'Its address would be longer than 1,024 bytes.',
        fix: 'Shorten what the address reads, or use limit(…) in the pattern.',
        byHand: false,
      };
    return {
      ok: false,
      base: `!blank ${expression}`,
      code: 'blank-segment',
      message: `Its address would have an empty part: {${expression}} is blank.`,
      fix: 'Fill the field, or make that part of the pattern optional with [ ].',
      byHand: false,
    };
  }

  /** The unnumbered path by pattern, as the entry stands; null for a type without addresses. */
  base(id: string): BuiltPath | null {
    const entry = this.entryNow(id);
    const rule = entry && this.rules.byType.get(entry.type.key);
    if (!entry || !rule) return null;
    const view = this.view(id);
    if (!view) return { ok: false, why: 'blank', expression: entry.type.naming };
    const outermost = this.building.size === 0;
    if (outermost) this.cyclic = false;
    if (this.building.has(id) || this.building.size > MAX_DEPTH) {
      this.cyclic = true;
      return { ok: false, why: 'blank', expression: 'within' };
    }
    this.building.add(id);
    const parts = rule.pattern.trace(addressScope(this.reads, view));
    this.parts = parts;
    this.building.delete(id);
    if (this.cyclic && outermost) return { ok: false, why: 'blank', expression: 'within' };
    const { language } = this.reads;
    const built = buildPath(parts, language, fallbackSlug(entry.type.key, id, language));
    return built.ok ? belowRoot(this.rules.root, built) : built;
  }

  /** A path that others build upon, as patterns read it: from the root of its language. */
  private pathWithin(id: string): string | null {
    const path = this.path(id);
    return path === null ? null : within(this.rules.root, path);
  }

  private view(id: string): ReturnType<typeof addressView> {
    const entry = this.entryNow(id);
    return entry ? addressView(entry, this.standings.standing(id), this.standings.now) : null;
  }

  /**
   * The current path, else the last held, else the one by hand of what never was live, else the
   * unnumbered base.
   */
  standingPath(id: string): string | null {
    if (this.building.has(id)) this.cyclic = true;
    const standing = this.standings.standing(id);
    const held = standing.held ?? (this.standings.isPending(id) ? null : standing.lastHeld);
    if (held) return held.path;
    // Never live so far, or live from now on and not dealt one yet: the one by hand is what it gets.
    const isNew = standing.lastRevision === null || standing.live !== null;
    const entry = this.entryNow(id);
    const byHand = entry && isNew ? this.byHand(entry) : undefined;
    if (byHand !== undefined) return byHand;
    const base = this.base(id);
    return base?.ok ? base.path : null;
  }
}

function belowRoot(root: string, built: Extract<BuiltPath, { ok: true }>): BuiltPath {
  const path = below(root, built.path);
  return path.length > MAX_PATH_BYTES
    ? { ok: false, why: 'too-long', expression: '/' }
    : { ...built, path };
}
