import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import { By } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  WAIT,
  browser,
  choose,
  chooseAt,
  clickOn,
  expectAccessible,
  inFrame,
  inPreview,
  open,
  press,
  pressStarting,
  publicPage,
  ready,
  see,
  serveBuilder,
  server,
  write,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

const FONT = '@fontsource-variable/newsreader/files/newsreader-latin-wght-normal.woff2';

const line = (text: string): By =>
  By.xpath(`//*[@role="treeitem"][contains(normalize-space(), ${JSON.stringify(text)})]`);
const offered = (text: string): Promise<void> =>
  clickOn(
    By.xpath(`//*[@role="menuitem"][starts-with(normalize-space(), ${JSON.stringify(text)})]`),
  );

test('a starting style is chosen, a colour that is too faint is told, rules that fetch are refused', async () => {
  await open('/build/settings/style');
  await see('Own rules alone');
  await clickOn(By.xpath('//label[starts-with(normalize-space(), "Meadow")]//input'));
  await see('every text can be read');
  await expectAccessible();
  await browser.executeScript(
    `const input = document.querySelector('[aria-label="Text, by day"]');
     Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, '#c8d2e4');
     input.dispatchEvent(new Event('input', { bubbles: true }));`,
  );
  await see('words need 4.5 : 1');
  await clickOn(By.css('[aria-label="Text, by day: as the starting style has it"]'));
  await write('style-css', '@import url("https://elsewhere.example/x.css");');
  await see('A style sheet may not import another');
  const keep = await ready(By.xpath('//button[.="Keep on the bench"]'));
  expect(await keep.isEnabled()).toBe(false);
  await write('style-css', 'h1 { letter-spacing: 1px }');
  await press('Release this now …');
  await press('Release now');
  await see('Released ');
  const sheet = /href="(\/style\/[0-9a-f]+\.css)"/.exec(await publicPage('/'))![1]!;
  const css = await publicPage(sheet);
  expect(css).toContain('--accent: #2a52be;');
  expect(css.trim().endsWith('h1 { letter-spacing: 1px }')).toBe(true);
  await press('Undo');
  await see('Taken back');
});

test('a font is added and chosen; what a named style looks like is set, and blocks can have it', async () => {
  await open('/build/settings/style');
  await clickOn(By.xpath('//label[starts-with(normalize-space(), "Lantern")]//input'));
  const send = async (file: string): Promise<void> =>
    (await browser.findElement(By.css('[aria-label="Fonts"] input[type="file"]'))).sendKeys(file);
  await send(fileURLToPath(new URL('../../package.json', import.meta.url)));
  await see('Fonts are in WOFF2, and this is none.');
  await send(createRequire(import.meta.url).resolve(FONT));
  await see('weights 200 to 800');
  await choose('look-headingFace', 'Newsreader');
  await writeInto('Name of the new style', 'Loud');
  await chooseAt(By.css('[aria-label="What it is for"]'), 'of blocks of templates');
  await press('Add it');
  await see('On the bench: style Loud added.');
  await press('Loud');
  await choose('named-ground', 'Links and headings');
  await see('By day its words have');
  await choose('named-colour', 'Ground');
  await inPreview('A block in this style');
  await expectAccessible();
  await press('Keep on the bench');
  await see('Nobody else sees it until it is released');
  await open('/build/templates/variety-page');
  await clickOn(line('Heading'));
  await write('block-style', 'loud');
  const ground = `const loud = document.querySelector('h1.style-loud');
    return loud && getComputedStyle(loud).backgroundColor`;
  await browser.wait(async () => (await inFrame(ground)) === 'rgb(142, 31, 79)', WAIT);
  await press('Drop changes');
  await open('/build/bench');
  await pressStarting('Release');
  await press('Release now');
  await see('Released ');
  const sheet = /href="(\/style\/[0-9a-f]+\.css)"/.exec(await publicPage('/'))![1]!;
  const css = await publicPage(sheet);
  expect(css).toContain('.style-loud { color: var(--ground); background: var(--accent); }');
  const [address] = /\/style\/newsreader[a-z-]*-[0-9a-f]{8}\.woff2/.exec(css)!;
  const font = await fetch(server.url + address);
  expect([font.status, font.headers.get('content-type')]).toEqual([200, 'font/woff2']);
});

test('a menu is made of what is there, and what is put into it stands on the page', async () => {
  await open('/build/templates/main-menu');
  await see('Menu · chosen for');
  await clickOn(line('About'));
  await press('Add …');
  await offered('Listing');
  await write('block-text', 'Beans of all sorts');
  await inPreview('Beans of all sorts');
  await press('In');
  const chosen = By.css('[role="treeitem"][aria-selected="true"]');
  await browser.wait(
    async () => (await (await ready(chosen)).getAttribute('aria-level')) === '2',
    WAIT,
  );
  await expectAccessible();
  await press('Copy');
  await press('Drop changes');
  await press('Paste');
  await inPreview('Beans of all sorts');
});

test('what stands in a condition is shown where what it asks holds', async () => {
  await open('/build/templates/variety-page');
  await clickOn(line('Rich text'));
  await press('Add …');
  await offered('Condition');
  await see('Otherwise');
  await press('Add …');
  await offered('Text');
  await write('block-text', 'Only where something holds');
  await inPreview('Only where something holds');
  await clickOn(line('Condition'));
  await write('block-path', '/nowhere');
  await see('gives nothing');
  await see('What it asks does not hold here');
  await clickOn(By.xpath('//*[@role="tab"][.="Markup"]'));
  const markup = await ready(By.css('[aria-label="Markup of the page"]'));
  expect(await markup.getText()).not.toContain('Only where something holds');
  expect(await markup.getText()).toContain('class="rich-text"');
  await clickOn(By.xpath('//*[@role="tab"][.="Head"]'));
  expect(await (await ready(By.css('[aria-label="Head of the page"]'))).getText()).toContain(
    '<title>',
  );
  await expectAccessible();
});
