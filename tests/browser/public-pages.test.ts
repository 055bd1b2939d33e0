import AxeBuilder from '@axe-core/webdriverjs';
import { expect, test } from 'vitest';
import { browser, resize, server, serveBuilder } from '../helpers/builder.ts';
import { bontel } from '../helpers/run.ts';

const data = serveBuilder({ signedIn: false });

/** A page of each template and of each kind of list; with `LONG` every page there is. */
const SOME = [
  '/',
  '/varieties',
  '/varieties/legumes',
  '/varieties?family=legumes&traits=hardy&order=soonest',
  '/search?q=bean',
  '/varieties/beans/slate-roof',
  '/guides/2026/what-to-sow-when-the-ground-is-cold',
  '/growers/petra-stanhope-featherstonehaugh',
  '/about-the-library/how-lending-works',
  '/nothing-here',
];

const allPaths = (): string[] =>
  bontel('pages', '--data', data, '--json')
    .json<{ path: string }[]>()
    .map(({ path }) => path);

test.each([
  ['a phone', 360],
  ['a tablet', 768],
  ['a desk', 1280],
])(
  'pages hold no accessibility findings and fit the width of %s',
  async (_, width) => {
    await resize(width);
    const found: string[] = [];
    for (const path of process.env['LONG'] ? allPaths() : SOME) {
      await browser.get(server.url + path);
      const { violations } = await new AxeBuilder(browser).setLegacyMode().analyze();
      found.push(...violations.map((v) => `${path} ${v.id}: ${v.nodes[0]?.html}`));
      const over = await browser.executeScript(
        'return document.documentElement.scrollWidth - innerWidth',
      );
      if (Number(over) > 0) found.push(`${path} is ${String(over)} px wider`);
    }
    expect(found).toEqual([]);
  },
  1_200_000,
);

test('the first page is at most 60 kB without its pictures, and nothing on it moves as they come', async () => {
  await resize(1280);
  await browser.get(`${server.url}/`);
  await browser.executeAsyncScript('document.fonts.ready.then(arguments[0])');
  const [bytes, shift, scripts] = (await browser.executeAsyncScript(`
    const done = arguments[0];
    let shift = 0;
    new PerformanceObserver((list) => { for (const e of list.getEntries()) shift += e.value; })
      .observe({ type: 'layout-shift', buffered: true });
    const sizes = performance.getEntriesByType('resource')
      .filter((e) => e.initiatorType !== 'img').map((e) => e.encodedBodySize);
    const page = performance.getEntriesByType('navigation')[0].encodedBodySize;
    const scripts = [...document.scripts].filter((s) => s.type !== 'application/ld+json').length;
    setTimeout(() => done([sizes.reduce((a, b) => a + b, page), shift, scripts]), 1500);
  `)) as number[];
  expect({ shift: shift! < 0.01, scripts }).toEqual({ shift: true, scripts: 1 });
  expect(bytes).toBeLessThanOrEqual(60 * 1024);
});
