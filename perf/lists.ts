import assert from 'node:assert/strict';
import { listingSpec } from '@/core/design/listing-spec.ts';
import { planPublic } from '@/core/listing/planner.ts';
import type { ListingPlan } from '@/core/listing/plan.ts';
import { PLAIN_VISIT, visited } from '@/core/listing/visit.ts';
import { Validity } from '@/core/time/interval.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import type { SiteView } from '@/server/queries/site-view.ts';
import { foundTable, wordQuery } from '@/server/store/word-tables.ts';
import { type PerfRow, row, share } from './measure.ts';

const SIZE = 12;
const OFFSET = 36 * SIZE;
const page = { pageSize: SIZE, type: 'variety' };

/** The listings measured; the measured site has them, so that they have their indexes. */
export const LISTS = {
  tagged: { ...page, where: { field: 'traits', op: 'is', value: 'hardy' }, sort: ['title'] },
  within: { ...page, where: { field: 'family', op: 'is', value: 'legumes' }, sort: ['title'] },
  through: {
    ...page,
    where: { field: 'savedBy.name', op: 'starts-with', value: 'e' },
    sort: ['title'],
  },
  union: { ...page, also: ['guide'], sort: ['entry.name'] },
  found: {
    ...{ ...page, address: '/found', sort: ['title'] },
    visitor: { filters: ['difficulty', 'family'], search: ['title', 'summary'] },
  },
} as const;

type Driver = SiteView['connection']['driver'];

/** What is read, and what is read by hand in its place. */
interface Pair {
  name: string;
  target: number;
  ours: () => unknown;
  byHand: () => unknown;
}

/** Lists of other sorts at 100,000 entries, each against the best that is written by hand. */
export function measureLists(view: SiteView): PerfRow[] {
  const now = Date.now();
  const { site, reader: remembering } = view.at(now)!;
  const fresh = (): SiteReader => view.readerOf(site);
  const plans = plansOf(site);
  const hand = new ByHand(view.connection.driver, now);
  const pages = (key: keyof typeof LISTS) => (): unknown =>
    fresh().listing(plans[key], new Validity(now), OFFSET, SIZE);
  const pairs: Pair[] = [
    { name: 'of one tag', target: 1.15, ours: pages('tagged'), byHand: hand.tagged() },
    {
      name: 'of a category with all below',
      target: 1.15,
      ours: pages('within'),
      byHand: hand.within(),
    },
    { name: 'through one reference', target: 1.15, ours: pages('through'), byHand: hand.through() },
    { name: 'of two types', target: 1.15, ours: pages('union'), byHand: hand.union() },
  ];
  return [
    ...pairs.map((pair) => measured(pair)),
    narrowedByVisitors(fresh, plans.found, hand, now),
    searched(view, fresh, plans.found, now),
    remembered(remembering, plans.tagged, now),
    deep(fresh, plans.tagged, now),
  ];
}

function plansOf({ design }: CompiledSite): Record<keyof typeof LISTS, ListingPlan> {
  const plans = Object.entries(LISTS).map(([key, spec]) => {
    const { plan } = planPublic(listingSpec.parse({ key: `measured-${key}`, ...spec }), design);
    return [key, plan!] as const;
  });
  return Object.fromEntries(plans) as Record<keyof typeof LISTS, ListingPlan>;
}

/** Page 37 of each list in a site of 1,000,000 entries, against the same in one of 100,000. */
export function measureGrowth(small: SiteView, large: SiteView): PerfRow[] {
  const now = Date.now();
  const pages = (view: SiteView, key: keyof typeof LISTS): (() => void) => {
    const { site } = view.at(now)!;
    const plan = plansOf(site)[key];
    return () => {
      view.readerOf(site).listing(plan, new Validity(now), OFFSET, SIZE);
    };
  };
  return (Object.keys(LISTS) as (keyof typeof LISTS)[]).map((key) =>
    row(
      `page 37 with total, 1,000,000 entries against 100,000: ${key} (time)`,
      share(pages(large, key), pages(small, key)),
      '≤',
      1.5,
    ),
  );
}

function narrowedByVisitors(
  fresh: () => SiteReader,
  found: ListingPlan,
  hand: ByHand,
  now: number,
): PerfRow {
  const narrowed = visited(found, {
    ...PLAIN_VISIT,
    wanted: new Map([['difficulty', ['easy']]]),
  });
  const counted = visited(found, PLAIN_VISIT);
  return measured({
    name: 'narrowed by visitors, with counts of two fields',
    target: 2,
    ours: () => {
      const reader = fresh();
      const list = reader.listing(narrowed, new Validity(now), OFFSET, SIZE);
      const families = reader.counts(narrowed, 'family', new Validity(now));
      const own = reader.counts(counted, 'difficulty', new Validity(now));
      return { ...list, legumes: families.get('legumes'), easy: own.get('easy') };
    },
    byHand: hand.facets(),
  });
}

function measured({ name, target, ours, byHand }: Pair): PerfRow {
  assert.deepEqual(ours(), byHand());
  const times = (make: () => unknown) => (): void => {
    for (let i = 0; i < 3; i++) make();
  };
  const ratio = share(times(ours), times(byHand));
  return row(
    `page 37 with total ${name}, 100,000 entries, against SQL by hand (time)`,
    ratio,
    '≤',
    target,
  );
}

/** Page 37 of a search with its total, against the same of the index of words alone, by rank. */
function searched(
  { connection: { driver } }: SiteView,
  fresh: () => SiteReader,
  found: ListingPlan,
  now: number,
): PerfRow {
  const plan = visited(found, { ...PLAIN_VISIT, search: 'amber' });
  const table = foundTable(plan.type);
  const where = `FROM ${table} WHERE ${table} MATCH ?`;
  const page = driver.prepare(`SELECT rowid ${where} ORDER BY rank LIMIT ${SIZE} OFFSET ${OFFSET}`);
  const count = driver.prepare(`SELECT count(*) ${where}`).pluck();
  const words = wordQuery('amber', plan.search!.fields);
  const { total } = fresh().listing(plan, new Validity(now), OFFSET, SIZE);
  assert.equal(count.get(words), total);
  const ratio = share(
    () => fresh().listing(plan, new Validity(now), OFFSET, SIZE),
    () => [page.all(words), count.get(words)],
  );
  return row(
    `page 37 with total of a search that finds ${total.toLocaleString('en')} of 100,000 entries, against FTS5 alone (time)`,
    ratio,
    '≤',
    1.3,
  );
}

/** What a list that is remembered costs, µs. */
function remembered(reader: SiteReader, plan: ListingPlan, now: number): PerfRow {
  const read = (): unknown => reader.listing(plan, new Validity(now), OFFSET, SIZE);
  read();
  const rounds = 20_000;
  const before = process.hrtime.bigint();
  for (let i = 0; i < rounds; i++) read();
  const each = Number(process.hrtime.bigint() - before) / 1000 / rounds;
  const value = Math.round(each * 100) / 100;
  return { name: 'a remembered list again', value, unit: 'µs', target: '≤ 10', met: value <= 10 };
}

function deep(fresh: () => SiteReader, plan: ListingPlan, now: number): PerfRow {
  const at = (number: number) => (): void => {
    for (let i = 0; i < 3; i++) fresh().listing(plan, new Validity(now), (number - 1) * SIZE, SIZE);
  };
  return row('page 2,000 of a list, against its page 2 (time)', share(at(2000), at(2)), '≤', 3);
}

/** Tables and indexes that are made for one query each. */
class ByHand {
  constructor(
    private readonly driver: Driver,
    private readonly now: number,
  ) {}

  private table(name: string, select: string, index: string): void {
    this.driver.exec(`CREATE TEMP TABLE ${name} AS ${select};
      CREATE INDEX temp.${name}_order ON ${name} (${index})`);
  }

  private read(from: string, order: string, page = from): () => { ids: string[]; total: number } {
    const live = (where: string): string =>
      `${where} AND starts <= ${this.now} AND (ends IS NULL OR ends > ${this.now})`;
    const ids = this.driver
      .prepare(`SELECT entry ${live(page)} ORDER BY ${order} LIMIT ${SIZE} OFFSET ${OFFSET}`)
      .pluck();
    const count = this.driver.prepare(`SELECT count(*) ${live(from)}`).pluck();
    return () => ({ ids: ids.all() as string[], total: count.get() as number });
  }

  tagged(): () => unknown {
    this.table(
      'hand_tag',
      `SELECT m.key AS tag, v.s_title AS title, v.created, v.entry, v.starts, v.ends
         FROM index_variety AS v
         JOIN member_variety AS m ON m.entry = v.entry AND m.starts = v.starts AND m.own = 1
         WHERE v.open = 1 AND m.field = 'traits'`,
      'tag, title, created, entry, starts, ends',
    );
    return this.read(`FROM hand_tag WHERE tag = 'hardy'`, 'title, created, entry');
  }

  within(): () => unknown {
    this.table(
      'hand_family',
      `SELECT s_title AS title, created, entry, c_family AS family, starts, ends
         FROM index_variety WHERE open = 1`,
      'title, created, entry, family, starts, ends',
    );
    const keys = `('legumes', 'beans', 'peas')`;
    return this.read(`FROM hand_family WHERE family IN ${keys}`, 'title, created, entry');
  }

  through(): () => unknown {
    this.table(
      'hand_grower',
      `SELECT s_title AS title, created, entry, "c_saved$by" AS grower, starts, ends
         FROM index_variety WHERE open = 1`,
      'title, created, entry, grower, starts, ends',
    );
    const growers = `SELECT entry FROM index_grower WHERE open = 1 AND substr(c_name, 1, 1) = 'e'`;
    return this.read(`FROM hand_grower WHERE grower IN (${growers})`, 'title, created, entry');
  }

  union(): () => unknown {
    for (const type of ['variety', 'guide'])
      this.table(
        `hand_${type}`,
        `SELECT s_title AS title, created, entry, starts, ends FROM index_${type} WHERE open = 1`,
        'title, created, entry, starts, ends',
      );
    const live = `starts <= ${this.now} AND (ends IS NULL OR ends > ${this.now})`;
    const both = ['variety', 'guide']
      .map((type) => `SELECT entry, title, created FROM hand_${type} WHERE ${live}`)
      .join(' UNION ALL ');
    const ids = this.driver
      .prepare(`${both} ORDER BY title, created, entry LIMIT ${SIZE} OFFSET ${OFFSET}`)
      .pluck();
    const counts = ['variety', 'guide'].map((type) =>
      this.driver.prepare(`SELECT count(*) FROM hand_${type} WHERE ${live}`).pluck(),
    );
    return () => ({
      ids: ids.all() as string[],
      total: counts.reduce((sum, count) => sum + (count.get() as number), 0),
    });
  }

  facets(): () => unknown {
    this.table(
      'hand_facet',
      `SELECT s_title AS title, created, entry, c_difficulty AS ease, c_family AS family, starts, ends
         FROM index_variety WHERE open = 1`,
      'title, created, entry, ease, family, starts, ends',
    );
    const list = this.read(`FROM hand_facet WHERE ease = 'easy'`, 'title, created, entry');
    const live = `starts <= ${this.now} AND (ends IS NULL OR ends > ${this.now})`;
    const by = (column: string, where: string) =>
      this.driver
        .prepare<unknown[], [string, number]>(
          `SELECT ${column}, count(*) FROM hand_facet WHERE ${where} AND ${live} GROUP BY 1`,
        )
        .raw();
    const [families, eases] = [by('family', `ease = 'easy'`), by('ease', '1')];
    const legumes = new Set(['legumes', 'beans', 'peas']);
    return () => ({
      ...list(),
      legumes: families
        .all()
        .reduce((sum, [key, count]) => sum + (legumes.has(key) ? count : 0), 0),
      easy: new Map(eases.all()).get('easy'),
    });
  }
}
