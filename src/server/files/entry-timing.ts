import { checkByHand, isReserved, splitPageNumber } from '@/core/address/path.ts';
import type { ByHand, HeldFact } from '@/core/address/model.ts';
import type { Design } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import type { Issue } from '@/core/issue.ts';
import type { Plan, Revision } from '@/core/publication/model.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import { parseMoment } from '@/core/time/parse.ts';
import { isoInZone } from '@/core/time/zone.ts';
import type { RawEntry } from './entry-form.ts';

/** Says what is wrong at a place of an entry's file. */
export type Told = (at: (string | number)[], code: string, message: string, fix: string) => void;

/** A live interval as written, with its place in the file. */
interface Written {
  from: Instant;
  to: Instant | null;
  revision: number | null;
  /** Null for the language of the site. */
  language: string | null;
  at: (string | number)[];
}

/** A plan with how it was asked for. */
export interface PlanToLoad extends Plan {
  local: string | null;
  zone: string | null;
  /** Who asked for it; null for the entry's author. */
  person: string | null;
  /** Null for the language of the site. */
  language: string | null;
}

/** What a plan is read as before it has its place. */
type Unplaced = Omit<PlanToLoad, 'sequence'> & { sequence?: number | undefined };

const UNSAID = { local: null, zone: null, person: null };

/** Reads when an entry's revisions were saved, when it is public, and where by hand. */
export class TimingReader {
  constructor(
    private readonly design: Design,
    private readonly now: Instant,
    private readonly raw: RawEntry,
    private readonly told: Told,
    private readonly findings: Issue[],
  ) {}

  /** When the entry was made; null where the file does not say. */
  created(): Instant | null {
    return this.moment(this.raw.form.created, ['entry', 'created']);
  }

  /** When the entry was deleted; null where it was not. */
  deleted(): Instant | null {
    return this.moment(this.raw.form.deleted, ['entry', 'deleted']);
  }

  /** Revisions with their values, the oldest first. */
  revisions(values: Values[]): Revision[] {
    const { form } = this.raw;
    let number = 0;
    const all = values.map((v, i): Revision => {
      const older = form.revisions[i];
      number = this.numberAfter(number, i);
      const saved = older
        ? (this.moment(older.saved, ['entry', 'revisions', i, 'saved']) ?? 0)
        : this.savedAt(number);
      return {
        number,
        saved,
        values: v,
        author: (older ?? { author: form.savedBy }).author ?? form.author,
      };
    });
    all.forEach((r, i) => {
      if (i === 0 || r.saved > all[i - 1]!.saved) return;
      const older = i < form.revisions.length;
      this.told(
        older ? ['entry', 'revisions', i, 'saved'] : ['entry', 'saved'],
        'revision-order',
        `Revision ${r.number} is not saved later than revision ${all[i - 1]!.number}.`,
        older
          ? 'Order them by their saved instants.'
          : 'Set entry.saved to when the newest values were saved.',
      );
    });
    return all;
  }

  /** The number of a revision: as given, else the one that follows. */
  private numberAfter(before: number, i: number): number {
    const { form } = this.raw;
    const older = form.revisions[i];
    const { number = before + 1 } = older ?? form;
    if (number > before) return number;
    const at = older ? ['entry', 'revisions', i, 'number'] : ['entry', 'number'];
    const message = `Revision ${number} follows revision ${before}.`;
    this.told(at, 'revision-order', message, 'Let the numbers rise, or leave them out.');
    return before + 1;
  }

  /**
   * When the newest revision was saved: as given, else when it first was needed, else created,
   * else now.
   */
  private savedAt(number: number): Instant {
    const { form } = this.raw;
    const given = this.moment(form.saved, ['entry', 'saved']);
    if (given !== null) return given;
    const needs = (revision: number | null): boolean =>
      revision === number || (revision === null && number === 1);
    const uses = [
      ...form.live.filter((l) => needs(l.revision)).map((l) => l.from),
      ...form.plans.filter((p) => p.do === 'publish' && needs(p.revision)).map((p) => p.at),
      ...(number === 1 && form.created !== undefined ? [form.created] : []),
    ];
    const instants = uses.flatMap(
      (text) => parseMoment(text, this.now, this.design.site.zone) ?? [],
    );
    return Math.min(this.now, ...instants);
  }

  /** Publications and retirements, by instant and written order. */
  plans(revisions: Revision[]): PlanToLoad[] {
    const plans: Unplaced[] = [...this.intervalPlans(revisions), ...this.singlePlans(revisions)];
    const earliest = revisions[0]?.saved ?? 0;
    const idle = plans.find((p) => p.do === 'publish' && p.at < earliest);
    if (idle)
      this.findings.push({
        code: 'nothing-to-publish',
        path: this.raw.file,
        line: this.raw.lineOf(['entry', 'live']),
        message: `A publication at ${this.words(idle.at)} does nothing: the first revision was saved later.`,
        fix: 'Set entry.saved (or the first of entry.revisions) to an instant before it.',
      });
    return plans
      .map((p, place) => ({ ...p, sequence: p.sequence ?? place }))
      .sort((a, b) => a.at - b.at || a.sequence - b.sequence);
  }

  private intervalPlans(revisions: Revision[]): Unplaced[] {
    const written = this.raw.form.live.flatMap((l, i): Written[] => {
      const at = ['entry', 'live', i];
      const from = this.moment(l.from, at);
      const to = l.to === null ? null : this.moment(l.to, at);
      if (from === null) return [];
      this.checkRevision(at, l.revision, from, revisions);
      const { revision, language = null } = l;
      if (to === null || to > from) return [{ from, to, revision, language, at }];
      this.told(
        at,
        'empty-interval',
        'This live interval ends before it starts.',
        'Let it end later, or leave the end out.',
      );
      return [];
    });
    written.sort((a, b) => a.from - b.from);
    for (const spoken of new Set(written.map(({ language }) => language)))
      this.checkOverlaps(written.filter(({ language }) => language === spoken));
    return written.flatMap(({ from, to, revision, language }) => [
      { ...UNSAID, language, at: from, do: 'publish' as const, revision },
      ...(to === null
        ? []
        : [{ ...UNSAID, language, at: to, do: 'retire' as const, revision: null }]),
    ]);
  }

  private checkOverlaps(written: Written[]): void {
    written.forEach(({ from, at }, i) => {
      const before = written[i - 1];
      const overlaps = before && (before.to === null ? before.from === from : before.to > from);
      if (!overlaps) return;
      const other = this.raw.lineOf(before.at);
      this.told(
        at,
        'overlapping-intervals',
        `This live interval overlaps the one at line ${other}.`,
        'Let one end where the other starts; to show another revision meanwhile, use entry.plans.',
      );
    });
  }

  private singlePlans(revisions: Revision[]): Unplaced[] {
    return this.raw.form.plans.flatMap((p, i) => {
      const place = ['entry', 'plans', i];
      const at = this.moment(p.at, place);
      this.checkRevision(place, p.revision, at, revisions);
      const { person = null, language = null } = p;
      return at === null ? [] : [{ ...p, at, person, language }];
    });
  }

  private checkRevision(
    at: (string | number)[],
    number: number | null,
    from: Instant | null,
    revisions: Revision[],
  ): void {
    if (number === null || from === null) return;
    const revision = revisions.find((r) => r.number === number);
    if (!revision)
      this.told(
        at,
        'unknown-revision',
        `There is no revision ${number}; there are ${revisions.length}.`,
        'Revisions count from 1, the oldest.',
      );
    else if (revision.saved > from)
      this.told(
        at,
        'revision-order',
        `Revision ${number} was saved after it goes live here.`,
        'Set its saved instant earlier.',
      );
  }

  /** Addresses set by hand, each while its interval runs. */
  byHand(): ByHand[] {
    return this.raw.form.address.map((given, i) => {
      const at = ['entry', 'address', i];
      // What was saved was not taken when it was set.
      const taken = this.raw.form.was ? null : this.takenByDesign(given.path);
      const wrong = checkByHand(given.path) ?? taken;
      if (wrong !== null)
        this.told(at, 'wrong-address', `${given.path}: ${wrong}`, 'Write it like "/about/us".');
      const from = this.moment(given.from ?? undefined, at) ?? BEGINNING;
      const to = this.moment(given.to ?? undefined, at);
      if (to !== null && to <= from)
        this.told(
          at,
          'empty-interval',
          'This address ends before it starts.',
          'Let it end later, or leave the end out.',
        );
      return { path: given.path, from, to };
    });
  }

  /** All addresses held so far, by their starts; null where the file does not say. */
  held(): HeldFact[] | null {
    if (this.raw.form.was) return null;
    const facts = this.raw.form.held.map((given, i): HeldFact => {
      const at = ['entry', 'held', i];
      const wrong = given.path === '/' ? null : checkByHand(given.path);
      if (wrong !== null)
        this.told(at, 'wrong-address', `${given.path}: ${wrong}`, 'Write it like "/about/us".');
      const from = this.moment(given.from, at) ?? BEGINNING;
      const to = this.moment(given.to ?? undefined, at);
      if ((to ?? this.now) <= from || (to ?? this.now) > this.now)
        this.told(
          at,
          'wrong-fact',
          'An address held so far starts before it ends, and both are past.',
          'Leave the end out of the one that is held still; plan others under entry.address.',
        );
      return { path: given.path, base: given.base ?? given.path, refused: given.refused, from, to };
    });
    facts.sort((a, b) => a.from - b.from);
    if (facts.some(({ to }, i) => i < facts.length - 1 && (to === null || to > facts[i + 1]!.from)))
      this.told(
        ['entry', 'held'],
        'overlapping-intervals',
        'Two of the addresses held so far overlap.',
        'Let one end where the other starts.',
      );
    return facts.length > 0 ? facts : null;
  }

  private takenByDesign(path: string): string | null {
    if (isReserved(path)) return 'the site keeps it for itself.';
    const addresses = this.design.listings.flatMap((l) => l.address ?? []);
    const page = splitPageNumber(path);
    if (addresses.includes(path)) return 'a listing stands there.';
    return page && addresses.includes(page.address) ? 'a listing’s pages stand there.' : null;
  }

  /** An instant as it is written; null where none is, and that is said. */
  moment(text: string | undefined, at: (string | number)[]): Instant | null {
    if (text === undefined) return null;
    const instant = parseMoment(text, this.now, this.design.site.zone);
    if (instant === null)
      this.told(
        at,
        'wrong-instant',
        `"${text.slice(0, 60)}" is no instant.`,
        'Write ISO 8601, such as 2026-03-12T08:00 or 2026-03-12T08:00:00Z, or relative: now + PT5M, today - P3D at 08:00.',
      );
    return instant;
  }

  private words(at: Instant): string {
    return isoInZone(at, this.design.site.zone);
  }
}
