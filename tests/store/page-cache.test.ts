import fc from 'fast-check';
import { expect, test } from 'vitest';
import { runCommand } from '@/server/commands/run.ts';
import { PublicPages } from '@/server/delivery/public-pages.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { type TestSite, loadFiles } from '../helpers/folder.ts';
import { entry as entryOf, note } from '../helpers/notes.ts';
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

/** Visitors of a site, and how often what they asked for was kept. */
class Visitors {
  readonly pages: PublicPages;
  now = 0;
  hits = 0;
  /** Pages that were made anew although they were the same as before. */
  needless = 0;
  private readonly bodies = new Map<string, string>();

  constructor(private readonly site: TestSite) {
    this.pages = new PublicPages(site.view, () => this.now);
  }

  /** Asks for a page: whatever is kept must be what is there. */
  ask(path: string): void {
    const fresh = this.site.view.render(path, this.now)!;
    const kept = this.pages.known(path);
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
    this.pages.find(path);
    if (this.bodies.get(path) === fresh.body && fresh.status !== 404) this.needless += 1;
    this.bodies.set(path, fresh.body);
  }
}

test('a page that is gone is made anew once somebody else stands at its path', async () => {
  const site = await loadFiles({
    'types/note.json': note({ address: '/{title}' }),
    'entries/note.json': [
      entryOf('a', 'First', ['2026-01-01/2026-02-01']),
      entryOf('b', 'First', [], { saved: '2026-01-01' }),
    ],
  });
  const visitors = new Visitors(site);
  visitors.now = Date.parse('2026-07-01T12:00:00Z');
  expect(visitors.pages.find('/first')!.page.status).toBe(410);
  const publish = { entry: 'b', action: 'publish', at: null, revision: null };
  const wallClock = visitors.now;
  expect(runCommand(site.connection, 'planChange', COMMAND_LINE, publish, { wallClock }).ok).toBe(
    true,
  );
  visitors.now += 1000;
  await new Promise((resolve) => setImmediate(resolve));
  expect(visitors.pages.find('/first')!.page.status).toBe(200);
});

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
        const askAll = async (): Promise<void> => {
          // As between two requests: the counter is read once for all that come together.
          await new Promise((resolve) => setImmediate(resolve));
          visitors.now = wall;
          const listings = view.at(wall)!.site.listingAt.keys();
          for (const path of new Set(['/', ...listings, ...(known.all() as string[])]))
            visitors.ask(path);
        };
        for (const [what, pause] of steps) {
          await askAll();
          wall += pause * 60_000;
          await askAll();
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
          await askAll();
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
