import fc from 'fast-check';
import { expect, test } from 'vitest';
import { designOf, viewOf } from '../../../tests/helpers/design.ts';
import { MemoryReader } from '../../../tests/helpers/memory-reader.ts';
import { RICH_DESIGN, choices, drawing, randomStep } from '../../../tests/helpers/random-edits.ts';
import { applySteps } from '../design-edit/edit.ts';
import { blocksWithin } from '../design/block-ids.ts';
import type { Design } from '../design/spec.ts';
import { type CompiledSite, compileSite } from './compile.ts';
import { renderEntry } from './render.ts';

/** With words of a template in its further language, and a link that leads elsewhere there. */
const design = ((): Design => {
  const [de] = RICH_DESIGN.languages;
  const page = RICH_DESIGN.templates.find(({ key }) => key === 'seed-page')!;
  const named = [...blocksWithin(page.blocks)].find(({ text }) => typeof text === 'string')!;
  const texts = {
    ...de!.texts,
    [`templates/${page.id}/blocks/${named.id}`]: { text: 'Von {title}' },
  };
  return { ...RICH_DESIGN, languages: [{ ...de!, texts }] };
})();

/** Everything a site makes of an entry in each of its languages. */
function pagesOf(site: CompiledSite): string[] {
  return site.languages.map((own) => {
    const entries = [...own.types.values()].map((type) =>
      viewOf(type, type.id, { title: 'Blue', village: 'Cork', stock: 3 }, { path: `/${type.id}` }),
    );
    const reader = new MemoryReader(own, { entries });
    const at = Date.parse('2026-06-01T12:00:00Z');
    return entries.map((entry) => renderEntry(own, reader, entry, at).body).join('\n');
  });
}

const whole = ({ site, issues }: ReturnType<typeof compileSite>): object => ({
  issues,
  designs: site.languages.map((own) => JSON.stringify(own.design)),
  styleKey: site.styleKey,
  pages: pagesOf(site),
});

test('a site compiled with the help of the one before is the same as compiled from nothing', () => {
  const { site: before } = compileSite(design);
  let ofTemplates = 0;
  fc.assert(
    fc.property(choices, (numbers) => {
      const pick = drawing(numbers);
      const steps = Array.from({ length: 8 }, () => randomStep(design, pick));
      const step = steps.find(({ do: what, ...s }) =>
        (what === 'add' || what === 'move' ? '' : (s as { part: string }).part).startsWith(
          'templates/',
        ),
      );
      const done = applySteps(design, { steps: [step ?? steps[0]!] });
      if (!done.ok) return;
      const next = done.value.design;
      if (next.types === design.types && next.templates !== design.templates) ofTemplates += 1;
      expect(whole(compileSite(next, before))).toEqual(whole(compileSite(next)));
    }),
    { numRuns: 120 },
  );
  expect(ofTemplates).toBeGreaterThan(20);
});

test('what is wrong beside the templates is still told when templates alone change', () => {
  const wrong = designOf({
    css: 'a { colour',
    templates: [{ key: 'a', kind: 'frame', blocks: [] }],
  });
  const { site, issues } = compileSite(wrong);
  const next = { ...wrong, templates: [] };
  expect(issues).not.toEqual([]);
  expect(compileSite(next, site).issues).toEqual(compileSite(next).issues);
  expect(compileSite(next, site).issues.map(({ path }) => path)).toContain('style/css');
});

test('what templates do not decide is taken over, and made anew where anything else changed', () => {
  const { site: before } = compileSite(design);
  const templates = design.templates.slice(0, -1);
  const again = compileSite({ ...design, templates }, before).site;
  expect(again.languages.map(({ seo }) => seo)).toEqual(before.languages.map(({ seo }) => seo));
  expect(again.languages.every(({ seo }, i) => seo === before.languages[i]!.seo)).toBe(true);
  const other = { ...design, templates, site: { ...design.site, name: 'Other' } };
  expect(compileSite(other, before).site.seo).not.toBe(before.seo);
});
