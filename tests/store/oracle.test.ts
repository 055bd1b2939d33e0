import fc from 'fast-check';
import { expect, test } from 'vitest';
import { loadFiles } from '../helpers/folder.ts';
import { Oracle, Refused, read } from '../helpers/oracle.ts';
import { plainSite } from '../helpers/random-site.ts';

const RUNS = Number(process.env.LONG ?? 100);

test('addresses are, at every instant, what the rules say when worked out by hand', async () => {
  let compared = 0;
  let refusals = 0;
  let former = 0;
  await fc.assert(
    fc.asyncProperty(plainSite, async (files) => {
      const entries = read(files);
      const { front } = files['site.yaml'] as { front?: { entry?: string } };
      const { view, result } = await loadFiles(files);
      let oracle: Oracle;
      try {
        oracle = new Oracle(entries, front?.entry ?? null);
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        refusals++;
        expect(result.ok).toBe(false);
        return;
      }
      expect(result).toMatchObject({ ok: true });
      const everHeld = new Set(
        oracle.history
          .flatMap(({ paths, frontPattern }) => [
            ...paths.values(),
            ...(frontPattern === null ? [] : [frontPattern]),
          ])
          .filter((path) => path !== '/'),
      );
      for (const [i, { at, paths }] of oracle.history.entries()) {
        const expected = [...paths].map(([id, path]) => `${id} ${path}`).sort();
        for (const t of [at, (oracle.history[i + 1]?.at ?? at + 86_400_000) - 1]) {
          const given = view
            .pages(t)!
            .flatMap((p) => (p.entry === null ? [] : [`${p.entry} ${p.path}`]))
            .sort();
          expect({ at: new Date(t).toISOString(), given }).toEqual({
            at: new Date(t).toISOString(),
            given: expected,
          });
          compared += given.length;
          for (const path of everHeld) {
            const wanted = oracle.answer(path, i);
            const { status, headers } = view.render(path, t)!;
            const answer =
              headers.location === undefined ? String(status) : `${status} ${headers.location}`;
            if (wanted !== null)
              expect({ at: new Date(t).toISOString(), path, answer }).toEqual({
                at: new Date(t).toISOString(),
                path,
                answer: wanted,
              });
            if (wanted?.startsWith('308') || wanted === '410') former++;
          }
        }
      }
    }),
    { numRuns: RUNS },
  );
  expect(compared).toBeGreaterThan(2000);
  expect(former).toBeGreaterThan(1000);
  expect(refusals).toBeLessThan(RUNS / 2);
});
