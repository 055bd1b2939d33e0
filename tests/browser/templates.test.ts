import { By, Key, Origin, type WebElement } from 'selenium-webdriver';
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
  write,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

const line = (text: string): By =>
  By.xpath(`//*[@role="treeitem"][contains(normalize-space(), ${JSON.stringify(text)})]`);
const outline = async (): Promise<string[]> => {
  const rows = await browser.findElements(By.css('[role="treeitem"]'));
  return Promise.all(rows.map(async (row) => (await row.getText()).replace(/\s+/g, ' ')));
};
const placeOf = async (text: string): Promise<number> =>
  (await outline()).findIndex((row) => row.includes(text));
const moved = (text: string, to: number): Promise<unknown> =>
  browser.wait(async () => (await placeOf(text)) === to, WAIT, `waiting for ${text} at ${to}`);
const menu = (text: string): Promise<void> =>
  clickOn(By.xpath(`//*[@role="menuitem"][contains(., ${JSON.stringify(text)})]`));

test('blocks are bound, moved by keys, wrapped, taken back, and kept; what is wrong is told there', async () => {
  await open('/build/templates/variety-page');
  await see('Page of Variety');
  await clickOn(line('{latinName}'));
  await write('block-text', 'Known as {latinNam}');
  await see('to mend');
  await see('Did you mean "latinName"?');
  await expectAccessible();
  await write('block-text', 'Known as {latinName}');
  await inPreview('Known as ');
  const at = await placeOf('Known as');
  const row = await ready(line('Known as'));
  await row.sendKeys(Key.chord(Key.ALT, Key.ARROW_UP));
  await moved('Known as', at - 1);
  const focused = await browser.switchTo().activeElement();
  expect(await focused.getText()).toContain('Known as');
  await press('Wrap in a group');
  await moved('Known as', at);
  await press('Undo');
  await moved('Known as', at - 1);
  await press('Add …');
  await see('stands here already');
  await menu('Link');
  await moved('Link', at);
  await press('Delete');
  await browser.wait(async () => (await placeOf('Link')) < 0, WAIT);
  await see('pages look otherwise');
  await press('Keep on the bench');
  await see('On the bench:');
  expect(await publicPage('/varieties')).not.toContain('Known as');
});

test('a block is found by pressing it on the page, and dragged to another place', async () => {
  await open('/build/templates/grower-page');
  const frame = await browser.wait(
    async () => (await browser.findElements(By.css('iframe[src]')))[0],
    WAIT,
  );
  await inPreview('Grower');
  await browser.switchTo().frame(frame!);
  await browser.executeScript(`document.querySelector('h1').click()`);
  await browser.switchTo().defaultContent();
  await ready(By.css('[role="treeitem"][aria-selected="true"]'));
  expect(await (await ready(By.css('[aria-selected="true"]'))).getText()).toContain('{name}');
  const before = await outline();
  const grips = await browser.findElements(By.css('[role="treeitem"] [title^="Drag it"]'));
  await drag(grips[0]!, grips.at(-1)!);
  await browser.wait(async () => (await outline())[0] !== before[0], WAIT);
  expect((await outline()).toSorted()).toEqual(before.toSorted());
});

/** Drags by small steps, as a hand does. */
async function drag(from: WebElement, to: WebElement): Promise<void> {
  const whole = Math.round((await to.getRect()).y - (await from.getRect()).y);
  const act = browser.actions({ async: true }).move({ origin: from }).press();
  for (const y of [6, 6, whole - 6, 4])
    act.move({ origin: Origin.POINTER, x: 1, y, duration: 150 });
  await act.release().perform();
}

test('a template is made from the fields of a type, chosen for it and released', async () => {
  await open('/build/templates');
  await expectAccessible();
  await clickOn(By.xpath('//select//option[.="Page of Swap day"]'));
  await writeInto('Name of the new template', 'Plain swap day');
  await press('Make it');
  await see('chosen nowhere');
  await press('Take it away');
  await see('On the bench: template Plain swap day removed');
  await press('Undo');
  await see('chosen nowhere');
  await press('Choose it');
  await see('chosen for Swap day');
  await open('/build/bench');
  await pressStarting('Release ');
  await press('Release now');
  await see('Released');
  await open('/build/templates');
  await see('Plain swap day');
});

/** Waits for an offer with such words. */
const offered = (words: string): Promise<unknown> =>
  ready(By.xpath(`//*[@role="option"][contains(., ${JSON.stringify(words)})]`)).catch(
    async (problem: Error) => {
      throw new Error(`${problem.message}: ${words}`);
    },
  );

test('a pattern is completed by key, with what each offer gives for the entry shown', async () => {
  await open('/build/templates/variety-page');
  await clickOn(line('{latinName}'));
  const pattern = await ready(By.id('block-text'));
  await pattern.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Kept by {savedBy.vi');
  await offered('village');
  await expectAccessible(); // which leaves the pattern: the offers go
  await pattern.sendKeys('l');
  await offered('village');
  await pattern.sendKeys(Key.ENTER);
  await browser.wait(
    async () => (await pattern.getAttribute('value')) === 'Kept by {savedBy.village',
    WAIT,
  );
  await pattern.sendKeys('.na');
  await offered('Nether Dale');
  await pattern.sendKeys(Key.ARROW_DOWN, Key.ARROW_UP, Key.ENTER, '}');
  await inPreview('Kept by ');
  await pattern.sendKeys(' {ti');
  await offered('title');
  await pattern.sendKeys(Key.ESCAPE);
  expect(await browser.findElements(By.css('[role="listbox"]'))).toEqual([]);
});

test('fixed words are written where they stand on the page', async () => {
  await open('/build/templates/front');
  await inPreview('On the shelf');
  await press('Add …');
  await menu('Text');
  await write('block-text', 'Come in');
  await inPreview('Come in');
  await browser.switchTo().frame(await browser.findElement(By.css('iframe[src]')));
  const words = await browser.findElement(By.xpath('//p[.="Come in"]'));
  await browser.executeScript(
    `arguments[0].dispatchEvent(new MouseEvent('dblclick', { bubbles: true }))`,
    words,
  );
  const written = await browser.wait(
    async () => (await browser.findElements(By.css('[data-written]')))[0] ?? null,
    WAIT,
  );
  await written!.sendKeys('Come in [all] of you', Key.ENTER);
  await browser.switchTo().defaultContent();
  await browser.wait(
    async () =>
      (await (await ready(By.id('block-text'))).getAttribute('value')) === 'Come in [[all]] of you',
    WAIT,
  );
  await inPreview('Come in [all] of you');
});

test('a template is looked at on two entries side by side', async () => {
  await open('/build/templates/variety-page');
  await clickOn(By.xpath('//*[@role="tab"][.="Beside another"]'));
  await browser.wait(
    async () => (await browser.findElements(By.css('iframe[src]'))).length === 2,
    WAIT,
  );
  await expectAccessible();
});

test('a card is made as a row of a table, takes a block of another template, and is seen in its list', async () => {
  await open('/build/templates/guide-page');
  await clickOn(line('{minutes} min'));
  await press('Copy');
  await open('/build/templates');
  await chooseAt(By.css('[aria-label="What it draws"]'), 'Card of Guide, a row of a table');
  await writeInto('Name of the new template', 'Guide row');
  await press('Make it');
  await see('chosen nowhere');
  await clickOn(By.css('[role="treeitem"]'));
  await press('Paste');
  await inPreview(' min');
  await clickOn(By.xpath('//*[@role="tab"][.="In its list"]'));
  const rows = `return document.querySelectorAll('.cards .card-row').length`;
  await browser.wait(async () => Number(await inFrame(rows)) > 3, WAIT);
  await expectAccessible();
  await press('Drop changes');
});

test('an entry is drawn with another template that its type lets it choose', async () => {
  await open('/build/templates');
  await chooseAt(By.css('[aria-label="What it draws"]'), 'Page of Guide');
  await writeInto('Name of the new template', 'Quiet guide');
  await press('Make it');
  await see('chosen nowhere');
  await press('Add …');
  await menu('Text');
  await write('block-text', 'A quiet page');
  await press('Keep on the bench');
  await see('Nobody else sees it');
  await open('/build/types/guide');
  // Not the outcome's side of that name.
  await clickOn(By.xpath('//button[@aria-expanded][starts-with(normalize-space(), "Page")]'));
  await clickOn(By.xpath('//label[contains(., "Quiet guide")]/input'));
  await press('Keep on the bench');
  await see('Nobody else sees it');
  await open('/build/bench');
  await pressStarting('Release ');
  await press('Release now');
  await see('Released');
  await open('/build/content?type=guide');
  await clickOn(By.css('tbody a[href^="/build/content/"]'));
  await clickOn(By.xpath('//summary[contains(., "Presets")]'));
  await choose('preset-template', 'Quiet guide');
  await inPreview('A quiet page');
  await press('Address');
  await see('Quiet guide');
  await press('Save');
  await see('Saved as version');
});

test('a listing has pages of its own making, in the frame that is chosen for it', async () => {
  await open('/build/templates');
  await chooseAt(By.css('[aria-label="What it draws"]'), 'Frame around pages');
  await writeInto('Name of the new template', 'Bare frame');
  await press('Make it');
  await see('chosen nowhere');
  await open('/build/templates');
  await writeInto('Name of the new template', 'Plain list');
  await press('Make it');
  await see('chosen nowhere');
  await press('Add …');
  await menu('Text');
  await write('block-text', 'All of {site.name}, in order');
  await press('Keep on the bench');
  await see('Nobody else sees it');
  await open('/build/listings/guides');
  await choose('listing-template', 'Plain list');
  await choose('listing-frame', 'Bare frame');
  await clickOn(By.xpath('//*[@role="tab"][.="Page"]'));
  await inPreview('All of Marrowdale Seed Library, in order');
  const bare = `return document.querySelector('.site-header') === null`;
  await browser.wait(async () => (await inFrame(bare)) === true, WAIT);
  await expectAccessible();
  await press('Drop changes');
});

test('a listing gets a page for each value, which is there once that is released', async () => {
  await open('/build/listings/sow-this-month');
  await choose('each-by', 'difficulty');
  await write('each-title', '{valu} to sow');
  await see('Did you mean "value"?');
  await write('each-title', '{value} to sow');
  await clickOn(By.id('listing-feed'));
  await expectAccessible();
  await clickOn(By.xpath('//*[@role="tab"][.="Page"]'));
  const links = `return document.querySelectorAll('.values a[href^="/sow-now/"]').length`;
  await browser.wait(async () => Number(await inFrame(links)) > 1, WAIT);
  await press('Release this now …');
  await press('Release now');
  await see('Released ');
  const [, path] = /class="values".*?href="([^"]+)"/s.exec(await publicPage('/sow-now'))!;
  expect(await publicPage(`${path}/feed.atom`)).toContain('<feed xmlns');
  expect(await publicPage(path!)).toMatch(/<title>[^<]+ to sow<.*class="packet"/s);
});
