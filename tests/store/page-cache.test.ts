import fc from 'fast-check';
import { expect, test } from 'vitest';
import { ReadSet, typesRead } from '@/core/forecast/read-set.ts';
import { Validity } from '@/core/time/interval.ts';
import { runCommand } from '@/server/commands/run.ts';
import { CachedPage } from '@/server/delivery/cached-page.ts';
import { PageCache } from '@/server/delivery/page-cache.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { changedSince, publicGenerationOf } from '@/server/store/write.ts';
import { type TestSite, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';
import { randomSite } from '../helpers/random-site.ts';

const entry = fc.constantFrom('v0', 'v1', 'v2', 'g0', 'g1', 'p0', 'p1');
const minutes = fc.integer({ min: 0, max: 100_000 });
const step = fc.oneof(
  fc.record({
    do: fc.constant('save' as const),
    entry,
    title: fc.constantFrom('Pea', 'Bean', 'Moved', '★'),
  }),
  fc.record({
    do: fc.constantFrom('publish' as const, 'publish' as const, 'retire' as const),
    entry,
    after: fc.option(minutes),
  }),
  fc.record({ do: fc.constant('delete' as const), entry }),
  fc.record({ do: fc.constant('cancel' as const) }),
  fc.record({ do: fc.constant('release' as const), after: fc.option(minutes) }),
);

/** A cache over a site, as visitors have it, and how often it had what was asked for. */
class Visitors {
  readonly cache: PageCache;
  hits = 0;
  /** Pages that were made anew although they were the same as before. */
  needless = 0;
  private readonly bodies = new Map<string, string>();
  private told = -1;

  constructor(private readonly site: TestSite) {
    const { view } = site;
    this.cache = new PageCache({
      read: ({ plan, offset, limit, without }, now) => {
        const validity = new Validity(now);
        const { reader } = view.at(now)!;
        const list = reader.listing(plan, validity, offset, limit, without);
        return { ids: list.ids, total: list.total, until: validity.until };
      },
      typesOf: ({ plan }) => typesRead(plan, view.at(Date.now())!.site.types.values()),
    });
  }

  /** Asks for a page: whatever the cache has must be what is there. */
  ask(path: string, now: number): void {
    const generation = publicGenerationOf(this.site.connection)();
    if (generation !== this.told)
      this.cache.changed(this.told < 0 ? null : changedSince(this.site.connection, this.told));
    this.told = generation;
    const reads = new ReadSet();
    const fresh = this.site.view.render(path, now, reads)!;
    const kept = this.cache.get(path, now);
    if (kept) {
      this.hits += 1;
      const { status, body, headers } = kept.page;
      expect({ status, body, location: headers.location }, path).toEqual({
        status: fresh.status,
        body: fresh.body,
        location: fresh.headers.location,
      });
      return;
    }
    if (this.bodies.get(path) === fresh.body) this.needless += 1;
    this.bodies.set(path, fresh.body);
    this.cache.set(path, new CachedPage(fresh, reads, now));
  }
}

test('a page changes only where something of its read set does, whatever is written', async () => {
  let [hits, needless] = [0, 0];
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      fc.array(fc.tuple(step, minutes), { minLength: 3, maxLength: 12 }),
      async (files, steps) => {
        const site = await loadFiles(files);
        if (!site.result.ok) return;
        const { connection, view } = site;
        let wall = Date.parse('2026-07-01T12:00:00Z');
        const visitors = new Visitors(site);
        const known = connection.driver.prepare('SELECT DISTINCT path FROM address').pluck();
        const askAll = (): void => {
          const listings = view.at(wall)!.site.listingAt.keys();
          for (const path of new Set(['/', ...listings, ...(known.all() as string[])]))
            visitors.ask(path, wall);
        };
        for (const [what, pause] of steps) {
          askAll();
          wall += pause * 60_000;
          askAll();
          wall += 1;
          const at =
            'after' in what && what.after !== null
              ? new Date(wall + (what.after + 1) * 60_000).toISOString()
              : null;
          const run = (name: string, input: unknown): unknown =>
            runCommand(connection, name as never, COMMAND_LINE, input, { wallClock: wall });
          if (what.do === 'save')
            run('saveEntry', {
              id: what.entry,
              type: '',
              values: { title: what.title },
              seen: null,
            });
          else if (what.do === 'delete') run('deleteEntry', { entry: what.entry });
          else if (what.do === 'cancel') {
            const plan = connection.driver.prepare('SELECT max(id) FROM planned_change').pluck();
            run('cancelPlan', { plan: plan.get() });
          } else if (what.do === 'release') {
            const set = { plural: `P${wall}` };
            run('release', {
              edit: { steps: setting(view.at(wall)!.site.design, 'types/variety', set) },
              at,
            });
          } else run('planChange', { entry: what.entry, action: what.do, at, revision: null });
          askAll();
        }
        hits += visitors.hits;
        needless += visitors.needless;
      },
    ),
    { numRuns: Number(process.env.LONG ?? 60) },
  );
  expect(hits).toBeGreaterThan(1000);
  expect(needless / (hits + needless)).toBeLessThan(0.25);
}, 240_000);
