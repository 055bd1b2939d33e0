import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { EntryView } from '@/core/design/values.ts';
import { type ListingRow, rowOf } from '@/core/listing/columns.ts';
import { partFor } from '@/core/listing/parts.ts';
import { evaluateListing } from '@/core/listing/evaluate.ts';
import { covers, Validity } from '@/core/time/interval.ts';
import { readValues } from '@/server/store/stored-values.ts';
import { withEntries } from '@/server/store/overlay-reader.ts';
import { loadFiles } from '../helpers/folder.ts';
import { day, randomSite } from '../helpers/random-site.ts';

const values = fc.record({
  title: fc.constantFrom('Pea', 'Aa', 'Zz'),
  stock: fc.option(fc.integer({ min: 0, max: 3 })),
  sow: fc.option(day.map((d) => d.slice(0, 10))),
  traits: fc.subarray(['tall', 'early']),
  grower: fc.option(fc.constantFrom('g0', 'g1')),
});

test('a list with unsaved values in it is, page by page, what it would be with these values published', async () => {
  let placed = 0;
  await fc.assert(
    fc.asyncProperty(
      randomSite,
      fc.uniqueArray(fc.tuple(fc.constantFrom('v0', 'v2', 'v5', 'new'), values), {
        selector: ([id]) => id,
        maxLength: 3,
      }),
      day,
      async (files, unsaved, at) => {
        const { connection, view, result } = await loadFiles(files);
        if (!result.ok) return;
        const instant = Date.parse(at);
        const { site, reader } = view.at(instant)!;
        const validity = new Validity(instant);
        const type = site.types.get('variety')!;
        const shown = unsaved.map(([id, v]): EntryView => {
          const live = reader.liveEntries([id], validity).get(id);
          return live
            ? { ...live, values: v }
            : {
                id,
                type,
                values: v,
                created: instant,
                published: instant,
                updated: instant,
                author: '',
                state: 'draft',
                path: null,
              };
        });
        const sql = `SELECT l.entry, e.type, e.created, e.published, l.starts AS "from", l.ends AS "to", l.starts AS updated, r."values" AS json FROM live_interval AS l JOIN entry AS e ON e.id = l.entry JOIN revision AS r ON r.entry = l.entry AND r.number = l.revision`;
        const stored = (
          connection.driver.prepare(sql).all() as (ListingRow & { json: string })[]
        ).map((r): ListingRow => ({
          ...r,
          values: readValues(r.json, 'en'),
        }));
        const rows = [
          ...stored.filter((r) => !shown.some((s) => s.id === r.entry)),
          ...shown.map((s): ListingRow => ({
            entry: s.id,
            type: s.type.id,
            created: s.created,
            published: s.published!,
            updated: s.updated!,
            from: instant,
            to: null,
            values: s.values,
          })),
        ];
        const live = connection.driver
          .prepare('SELECT entry, starts AS "from", ends AS "to" FROM live_interval')
          .all() as { entry: string; from: number; to: number | null }[];
        const seen = withEntries(reader, { entries: shown, moved: new Map() });
        for (const plan of site.listings.values()) {
          if (!partFor(plan, type.id)) continue;
          const expected = evaluateListing(plan, rows, instant, reader.filterWorld(instant), {
            isLive: (id) =>
              shown.some((s) => s.id === id) ||
              live.some((l) => l.entry === id && covers(l, instant)),
            row: (id) => rows.find((r) => r.entry === id && covers(r, instant)) ?? null,
          });
          for (let offset = 0; offset <= expected.length; offset++)
            expect(seen.listing(plan, validity, offset, 2)).toEqual({
              ids: expected.slice(offset, offset + 2),
              total: expected.length,
            });
          const entries = [...seen.liveEntries(expected, validity).values()];
          expect(entries.map((e) => seen.preceding(plan, rowOf(e), validity))).toEqual(
            entries.map((e) => expected.indexOf(e.id)),
          );
          expect(entries.map((e) => seen.neighbours(plan, rowOf(e), validity))).toEqual(
            entries.map((e) => {
              const i = expected.indexOf(e.id);
              const around = { before: expected[i - 1] ?? null, after: expected[i + 1] ?? null };
              return { isIn: true, ...around };
            }),
          );
          placed += expected.filter((id) => shown.some((s) => s.id === id)).length;
        }
      },
    ),
    { numRuns: Number(process.env.LONG ?? 80) },
  );
  expect(placed).toBeGreaterThan(50);
});
