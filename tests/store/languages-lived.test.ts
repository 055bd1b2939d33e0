import fc from 'fast-check';
import { expect, test } from 'vitest';
import { expectTheSame } from '../helpers/comes-back.ts';
import { loadFiles } from '../helpers/folder.ts';
import { germanSite } from '../helpers/random-site.ts';
import { languageWrites } from '../helpers/random-steps.ts';
import { LivedSite } from '../helpers/random-writes.ts';
import { derivedRows, rebuild } from '../helpers/snapshot.ts';

test('a site in two languages is derived alike at once and anew, and comes back from its folder', async () => {
  const done = new Map<string, number>();
  await fc.assert(
    fc.asyncProperty(germanSite, languageWrites, async (files, steps) => {
      const { result, ...site } = await loadFiles(files);
      if (!result.ok) return;
      const lived = new LivedSite(site.connection, site.view, Date.parse('2026-07-01T12:00:00Z'));
      for (const [what, pause] of steps) {
        lived.wall += pause * 60_000 + 1;
        lived.write(what);
        const rows = derivedRows(site.connection);
        rebuild(site.connection, site.view);
        expect(derivedRows(site.connection)).toEqual(rows);
      }
      await expectTheSame(site);
      for (const [name, n] of lived.done) done.set(name, (done.get(name) ?? 0) + n);
    }),
    { numRuns: Number(process.env.LONG ?? 10) },
  );
  expect(done.get('saveWords')).toBeGreaterThan(3);
});
