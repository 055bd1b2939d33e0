// npm run screenshots: pictures of the main views, made from the demo data, for docs/screenshots.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { picture, startBrowser } from '../tests/helpers/browser.ts';
import { bontel, startServer } from '../tests/helpers/run.ts';

const later = new Date(Date.now() + 12.4 * 86_400_000).toISOString();
const VIEWS: [string, string][] = [
  ['public-front', '/'],
  ['public-variety', '/varieties/beans/purple-podded-wren'],
  ['today', '/build'],
  ['content', '/build/content'],
  ['entry', '/build/content/purple-podded-wren'],
  ['entry-later', `/build/content/lighthouse-carrot?at=${later}`],
  ['types', '/build/types'],
  ['type', '/build/types/variety'],
  ['template', '/build/templates/variety-page'],
  ['listing', '/build/listings/sow-this-month'],
  ['left-out', '/build/listings/sow-this-month'],
  ['picks', '/build/listings/picks/shelf'],
  ['media', '/build/media?medium=lantern-pea.webp'],
  ['bench', '/build/bench'],
  ['settings', '/build/settings'],
  ['style', '/build/settings/style'],
  ['subjects', '/build/settings/subjects/families'],
  ['on-the-page', '/build/view/varieties/beans/slate-roof'],
  ['addresses', '/build/addresses?try=/varieties/carrots/quay-carrot'],
];

/** Something for the screen of types to understand. */
const OUTLINE = `Workshop: title, day, place, led by (→ Grower), level (beginners / everybody)
Variety: nickname, seed count (numbr)`;

/** Something for the bench to show. */
const RULE = {
  do: 'set',
  part: 'types/swap-day',
  property: 'seo.description',
  was: null,
  now: 'Bring a packet, take a packet: {title}.',
};

const data = mkdtempSync(join(tmpdir(), 'bontel-shots-'));
bontel('load', 'demo/site', '--data', data);
const server = await startServer(data, { builder: true });
const browser = await startBrowser();

/** Points at the heading of the page that is shown in a frame. */
async function pointAtHeading(): Promise<void> {
  await browser.switchTo().frame(await browser.findElement(By.css('iframe')));
  const heading = await browser.findElement(By.css('h1'));
  await browser.actions().move({ origin: heading }).perform();
  await browser.switchTo().defaultContent();
}

try {
  await browser.get(server.link!);
  await browser.sleep(3000);
  await browser.executeScript(
    `return fetch('/api/command/editDesign', { method: 'POST', headers: { 'content-type': 'application/json' }, body: arguments[0] }).then((r) => r.text())`,
    JSON.stringify({ steps: [RULE] }),
  );
  for (const [name, path] of VIEWS) {
    await browser.get(server.url + path);
    await browser.sleep(3500);
    if (name === 'left-out')
      await browser.findElement(By.xpath('//button[starts-with(., "Left out")]')).click();
    if (name === 'types') await browser.findElement(By.id('outline')).sendKeys(OUTLINE);
    if (name === 'type')
      await browser.findElement(By.xpath('//button[starts-with(., "Fields")]')).click();
    if (name === 'template')
      await browser.findElement(By.xpath('//*[@role="treeitem"][contains(., "Months")]')).click();
    if (name === 'on-the-page') await pointAtHeading();
    await browser.sleep(600);
    await picture(browser, `docs/screenshots/${name}.png`);
  }
} finally {
  await browser.quit();
  await server.stop();
  rmSync(data, { recursive: true, force: true });
}
