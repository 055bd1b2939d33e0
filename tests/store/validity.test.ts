import fc from 'fast-check';
import { expect, test } from 'vitest';
import { SiteView } from '@/server/queries/site-view.ts';
import { loadFiles } from '../helpers/folder.ts';
import { randomSite } from '../helpers/random-site.ts';

const START = Date.UTC(2025, 11, 20);
const END = Date.UTC(2027, 0, 20);

test('a page does not change from the instant it is asked for until its validity ends', async () => {
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      fc.array(fc.integer({ min: START, max: END }), { minLength: 6, maxLength: 6 }),
      async (files, instants) => {
        const { view, result } = await loadFiles(files);
        if (!result.ok) return;
        const bounds = view.connection.driver
          .prepare(
            'SELECT starts FROM live_interval UNION SELECT ends FROM live_interval WHERE ends IS NOT NULL UNION SELECT starts FROM pick UNION SELECT ends FROM pick WHERE ends IS NOT NULL UNION SELECT starts FROM address UNION SELECT ends FROM address WHERE ends IS NOT NULL',
          )
          .pluck()
          .all() as number[];
        for (const at of [...instants, ...bounds]) {
          const paths = [
            ...(view.pages(at) ?? []).map((p) => p.path),
            '/hand',
            '/ana/pea',
            '/about',
            '/all/page-2',
            '/sitemap.xml',
            '/all/feed.json',
            '/families/legumes/feed.atom',
          ];
          for (const path of paths) {
            const page = view.render(path, at)!;
            const until = page.validUntil ?? END + 86_400_000 * 400;
            const later = [
              until - 1,
              Math.floor((at + until) / 2),
              ...bounds.filter((b) => b > at && b < until),
              ...instants.filter((i) => i > at && i < until),
            ];
            for (const then of later) {
              const again = view.render(path, then)!;
              expect({
                then: new Date(then).toISOString(),
                path,
                status: again.status,
                location: again.headers.location,
                body: again.body,
              }).toEqual({
                then: new Date(then).toISOString(),
                path,
                status: page.status,
                location: page.headers.location,
                body: page.body,
              });
            }
          }
        }
      },
    ),
    { numRuns: Number(process.env.LONG ?? 25) },
  );
});

test('what is kept between two writes is what reading anew would give, at whichever instant', async () => {
  let compared = 0;
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      fc.array(fc.integer({ min: START, max: END }), { minLength: 8, maxLength: 8 }),
      async (files, instants) => {
        const { view, connection, result } = await loadFiles(files);
        if (!result.ok) return;
        for (const at of instants) {
          const anew = new SiteView(connection);
          const paths = anew.pages(at)!.map(({ path }) => path);
          for (const path of [...paths, '/hand', '/ana/pea', '/about']) {
            const { body, status, validUntil } = view.render(path, at)!;
            const fresh = new SiteView(connection).render(path, at)!;
            expect({ path, at, body, status, validUntil }).toEqual({
              ...{ path, at, body: fresh.body, status: fresh.status },
              validUntil: fresh.validUntil,
            });
            compared += 1;
          }
        }
      },
    ),
    { numRuns: Number(process.env.LONG ?? 15) },
  );
  expect(compared).toBeGreaterThan(100);
});

test('every path that "pages" lists answers 200, and every link on those pages answers 200', async () => {
  await fc.assert(
    fc.asyncProperty(randomSite, fc.integer({ min: START, max: END }), async (files, at) => {
      const { view, result } = await loadFiles(files);
      if (!result.ok) return;
      for (const { path, title } of view.pages(at)!) {
        const page = view.render(path, at)!;
        expect([path, page.status]).toEqual([path, 200]);
        expect(page.meta!.title).toBe(title);
        for (const [, link] of page.body.matchAll(/<a href="(\/[^"]*)"/g))
          expect([link, view.render(link!, at)!.status]).toEqual([link, 200]);
      }
    }),
    { numRuns: Number(process.env.LONG ?? 40) },
  );
});
