import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { designOf } from '../../../tests/helpers/design.ts';
import { type TimelineEntry, type TimelineSource, freshStanding } from '../address/model.ts';
import { simulate } from '../address/simulate.ts';
import type { Plan, Revision } from '../publication/model.ts';
import { compileSite } from '../site/compile.ts';
import { typesToPlayAnew } from '../site/played-anew.ts';
import { endingByRules, publicationsByRules } from './plans.ts';
import { timingForm } from './rules.ts';

const DAY = 86_400_000;
const START = Date.UTC(2026, 0, 1);
const LAST = 40;
const day = (n: number): string => new Date(START + n * DAY).toISOString().slice(0, 10);

const swap = (timing: object[], more: object = {}): object => ({
  key: 'swap',
  fields: [
    { key: 'title', kind: 'text', required: true },
    { key: 'on', kind: 'date' },
    { key: 'size', kind: 'number' },
  ],
  ...(timing.length > 0 ? { timing } : {}),
  ...more,
});
const siteOf = (timing: object[], more: object = {}) => {
  const { site, issues } = compileSite(
    designOf({ types: [swap(timing, more) as never], site: { zone: 'UTC' } }),
  );
  expect(issues).toEqual([]);
  return site;
};

const where = { field: 'size', op: 'more-than', value: 1 };
const rule = fc.record({
  do: fc.constantFrom('publish', 'retire'),
  from: fc.constantFrom('on', 'entry.created'),
  after: fc.constantFrom('-P2D', 'P0D', 'P3D', 'P9D'),
  where: fc.constantFrom(undefined, where),
});
const published = fc.record({
  do: fc.constant('retire'),
  from: fc.constant('entry.published'),
  after: fc.constantFrom('P1D', 'P5D'),
  where: fc.constant(undefined),
});
const values = fc.record({
  title: fc.constantFrom('Swap', 'Swap', null),
  on: fc.option(fc.integer({ min: 0, max: LAST }).map(day)),
  size: fc.constantFrom(1, 2),
});
const saved = fc.array(fc.tuple(fc.integer({ min: 0, max: LAST }), values), {
  minLength: 1,
  maxLength: 4,
});
const planned = fc.array(
  fc.record({
    at: fc.integer({ min: 0, max: LAST }),
    do: fc.constantFrom('publish' as const, 'retire' as const),
  }),
  { maxLength: 4 },
);

/** When an entry is live, played through with its rules. */
function played(timing: object[], entry: Omit<TimelineEntry, 'type' | 'endsByRule'>): string[] {
  const site = siteOf(timing);
  const over = [{ from: -Infinity, to: null, rules: site.timing.get('swap') ?? [] }];
  const ruled = { entry: entry.id, created: entry.created, revisions: entry.revisions };
  const plans = [...entry.plans, ...publicationsByRules(ruled, over)].sort(
    (a, b) => a.at - b.at || a.sequence - b.sequence,
  );
  const whole: TimelineEntry = {
    ...{ ...entry, plans, type: site.types.get('swap')! },
    endsByRule: (live, first, after) => {
      const own = entry.revisions.find((r) => r.number === live.revision)!.values;
      const looked = { entry: entry.id, created: entry.created, published: first, values: own };
      return endingByRules(looked, { live: live.from, after }, over);
    },
  };
  const source: TimelineSource = {
    entry: () => whole,
    standing: freshStanding,
    mayAct: () => true,
    holder: () => null,
    dependents: () => [],
    subject: () => null,
    media: () => null,
  };
  const events = new Map(plans.map(({ at }) => [at, new Set([entry.id])]));
  const { live } = simulate(() => site.addresses, source, events);
  return live.map(
    ({ from, to, revision }) => `${day2(from)}/${to === null ? '' : day2(to)} ${revision}`,
  );
}
const day2 = (at: number): number => (at - START) / DAY;

/** The same, day by day, as the words of the rules say. */
function byHand(
  timing: { do: string; from: string; after: string; where?: object | undefined }[],
  { revisions, plans, created }: Pick<TimelineEntry, 'revisions' | 'plans' | 'created'>,
): string[] {
  const found: string[] = [];
  let live: { revision: number; from: number } | null = null;
  let first: number | null = null;
  const days = (after: string): number => Number(/-?\d+/.exec(after.replace('-P', 'P-'))![0]);
  const acts = (r: (typeof timing)[number], revision: Revision, n: number): boolean => {
    const start = { 'entry.created': day2(created), 'entry.published': first, on: dayOf(revision) }[
      r.from
    ];
    return (
      typeof start === 'number' &&
      start + days(r.after) === n &&
      (r.where === undefined || Number(revision.values.size) > 1)
    );
  };
  const end = (n: number): void => {
    if (live && live.from < n) found.push(`${live.from}/${n} ${live.revision}`);
    live = null;
  };
  for (let n = -5; n <= LAST + 20; n++) {
    const at = START + n * DAY;
    const newest = revisions.findLast((r) => r.saved <= at);
    const before: number | null = (live as { revision: number } | null)?.revision ?? null;
    let next: number | null = before;
    for (const plan of plans.filter((p) => p.at === at))
      next = plan.do === 'retire' ? null : (newest?.number ?? next);
    for (const r of timing)
      if (r.do === 'publish' && newest?.values.title && acts(r, newest, n)) next = newest.number;
    const shown = revisions.find((r) => r.number === next);
    if (next === before && shown && timing.some((r) => r.do === 'retire' && acts(r, shown, n)))
      next = null;
    if (next === before) continue;
    end(n);
    if (next !== null) {
      live = { revision: next, from: n };
      first ??= n;
    }
  }
  if (live)
    found.push(`${(live as { from: number }).from}/ ${(live as { revision: number }).revision}`);
  return found;
}
function dayOf({ values: { on } }: Revision): number | null {
  return typeof on === 'string' ? (Date.parse(on) - START) / DAY : null;
}

describe('rules', () => {
  test('do what they say, whatever is saved and planned', () => {
    let retired = 0;
    fc.assert(
      fc.property(
        fc.array(fc.oneof(rule, published), { maxLength: 3 }),
        saved,
        planned,
        (rules, all, acts) => {
          // A rule that publishes cannot count from the publication.
          const timing = rules.map((r, i) => ({ id: `r${i}`, ...r }));
          const revisions = [...new Map(all)]
            .sort(([a], [b]) => a - b)
            .map(([n, v], i): Revision => ({
              ...{ number: i + 1, saved: START + n * DAY, author: '' },
              values: v,
            }));
          const plans = acts
            .map((p, i): Plan => ({ ...p, at: START + p.at * DAY, sequence: i, revision: null }))
            .sort((a, b) => a.at - b.at || a.sequence - b.sequence);
          const created = revisions[0]!.saved;
          const entry = { id: 's', author: '', byHand: [], created, revisions, plans };
          const expected = byHand(timing, entry);
          expect(played(timing, entry)).toEqual(expected);
          if (timing.length > 0) retired += expected.length;
        },
      ),
      { numRuns: 400 },
    );
    expect(retired).toBeGreaterThan(100);
  });
});

describe('a release', () => {
  const retires = [{ id: 'r', do: 'retire', from: 'on', after: 'P1D' }];
  const fieldsWith = (change: (fields: Record<string, unknown>[]) => void): object => {
    const { fields } = swap([]) as { fields: Record<string, unknown>[] };
    change(fields);
    return { fields };
  };
  const anew = (timing: object[], more: object = {}): string[] => [
    ...typesToPlayAnew(siteOf(retires), siteOf(timing, more)),
  ];

  test('has entries played anew where it changes when rules act, and nowhere else', () => {
    expect(anew(retires)).toEqual([]);
    expect(anew(retires, { label: 'Other', description: 'Other.' })).toEqual([]);
    const relabelled = fieldsWith(([title, on]) => {
      Object.assign(title!, { required: false, help: 'Other.' });
      Object.assign(on!, { label: 'Day' });
    });
    expect(anew(retires, relabelled)).toEqual([]);
    const renamed = fieldsWith(([, on]) => Object.assign(on!, { id: 'on', key: 'when' }));
    expect(anew([{ ...retires[0], from: 'when' }], renamed)).toEqual([]);
    expect(anew([{ ...retires[0], after: 'P2D' }])).toEqual(['swap']);
    expect(anew([{ ...retires[0], where }])).toEqual(['swap']);
    expect(anew([])).toEqual(['swap']);
    const instant = fieldsWith(([, on]) => Object.assign(on!, { kind: 'datetime' }));
    expect(anew(retires, instant)).toEqual(['swap']);
  });

  test('of a type that publishes by itself does so where a field is required', () => {
    const publishes = [{ id: 'p', do: 'publish', from: 'on', after: 'P0D' }];
    const form = (more: object): string => {
      const { design } = siteOf(publishes, more);
      return timingForm(design.types[0]!, design);
    };
    const required = fieldsWith(([, , size]) => Object.assign(size!, { required: true }));
    expect(form(required)).not.toBe(form({}));
    expect(form(fieldsWith(([title]) => Object.assign(title!, { help: 'Other.' })))).toBe(form({}));
  });
});
