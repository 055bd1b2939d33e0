import { By, Key, until } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import {
  browser,
  clickOn,
  open,
  press,
  pressStarting,
  publicPage,
  ready,
  see,
  serveBuilder,
  server,
  WAIT,
  words,
  write,
  writeAt,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

const keys = (...pressed: string[]): Promise<void> =>
  browser
    .actions()
    .sendKeys(...pressed)
    .perform();
const valueOf = (id: string): Promise<string> =>
  browser.findElement(By.id(id)).getAttribute('value') as Promise<string>;
/** Chooses in a control that reads as a word of a sentence. */
const choose = async (label: string, value: string, nth = -1): Promise<void> => {
  const all = By.css(`select[aria-label="${label}"]`);
  await ready(all);
  const found = (await browser.findElements(all)).at(nth)!;
  await browser.executeScript(
    `Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(arguments[0], arguments[1]);
     arguments[0].dispatchEvent(new Event('change', { bubbles: true }));`,
    found,
    value,
  );
};
/** Finds an entry by its name where one is searched for, and takes it by key. */
const pick = async (field: string, name: string): Promise<void> => {
  await writeAt(By.css(field), name.toLowerCase());
  await ready(
    By.xpath(`//li[@role="option" and @aria-selected="true" and contains(., "${name}")]`),
  );
  await keys(Key.ENTER);
};

describe('keys', () => {
  test('Ctrl S saves', async () => {
    await open('/build/content/frost-lettuce');
    await write('field-summary', 'Saved by a key.');
    await browser.actions().keyDown(Key.CONTROL).sendKeys('s').keyUp(Key.CONTROL).perform();
    await see('Not public until it is published');
    await open('/build/content/frost-lettuce');
    await ready(By.id('field-summary'));
    expect(await valueOf('field-summary')).toBe('Saved by a key.');
  });

  test('arrows walk the types that a new entry can be of, each with what it is', async () => {
    await open('/build/content');
    await clickOn(By.xpath('//button[starts-with(normalize-space(), "New")]'));
    await see('A date on which people meet');
    const focused = (): Promise<string> =>
      browser.executeScript('return document.activeElement.textContent');
    // The focus follows a key a moment later.
    const untilFocused = (words: string): Promise<unknown> =>
      browser.wait(async () => (await focused()).startsWith(words), WAIT, `waiting for ${words}`);
    await keys(Key.HOME);
    await untilFocused('Front page');
    await keys(Key.ARROW_DOWN);
    await untilFocused('Grower');
    await keys(Key.ARROW_UP);
    await untilFocused('Front page');
    await keys(Key.ARROW_DOWN);
    await untilFocused('Grower');
    await keys(Key.ENTER);
    await browser.wait(until.urlContains('/content/new/'), WAIT);
  });

  test('F6 goes round header, clock, settings and outcome', async () => {
    await open('/build/types/variety');
    await ready(By.id('address'));
    const next = async (): Promise<string> => {
      await keys(Key.F6);
      return browser.executeScript(
        'return document.activeElement.getAttribute("aria-label") ?? document.activeElement.tagName',
      );
    };
    await browser.wait(async () => (await next()) === 'HEADER', WAIT);
    expect([await next(), await next(), await next()]).toEqual(['Clock', 'Settings', 'Outcome']);
  });
});

describe('a page that is looked at', () => {
  test('opens alone at its own size, and Esc leads back to where one was', async () => {
    await open('/build/content/frost-lettuce');
    await press('Alone');
    await ready(By.xpath('//button[normalize-space()="Back"]'));
    const frame = await browser.findElement(By.css('[role=dialog] iframe'));
    expect(await frame.getCssValue('transform')).toMatch(/none|matrix\(1, 0, 0, 1, 0, 0\)/);
    await keys(Key.ESCAPE);
    await browser.wait(
      async () => (await browser.findElements(By.css('[role=dialog]'))).length === 0,
      WAIT,
    );
    expect(await browser.executeScript('return document.activeElement.textContent')).toBe('Alone');
  });
});

describe('a form', () => {
  test('marks what is wrong, says so, and both go when it is mended', async () => {
    await open('/build/content/new/variety');
    await write('field-summary', 'Without a name.');
    await press('Save');
    await browser.wait(
      async () =>
        (await browser.findElement(By.id('field-title')).getAttribute('aria-invalid')) === 'true',
      WAIT,
    );
    await write('field-title', 'With a name');
    await browser.wait(
      async () =>
        (await browser.findElement(By.id('field-title')).getAttribute('aria-invalid')) !== 'true',
      WAIT,
    );
    expect(await words()).not.toContain('names the entry');
  });

  test('offers pictures as thumbnails; the one picked is saved', async () => {
    await open('/build/content/frost-lettuce');
    // Other fields offer to choose another, too.
    await clickOn(By.id('field-picture'));
    await writeInto('Find by name or words', 'chapel-runner');
    const thumbnail = await ready(By.css('.medium-card:has([title="chapel-runner.webp"]) img'));
    expect(await thumbnail.getAttribute('src')).toMatch(/\/media\/[0-9a-f]{64}\/320$/);
    await thumbnail.click();
    await press('Save');
    await see('Not public until it is published');
    await open('/build/content/frost-lettuce');
    await see('chapel-runner');
  });

  test('makes the entry that a reference is to lead to, without leaving', async () => {
    await open('/build/content/new/variety');
    await write('field-savedBy', 'Newcomer');
    await see('Make “Newcomer”, a new Grower');
    await browser.findElement(By.id('field-savedBy')).sendKeys(Key.ENTER);
    await ready(By.xpath('//*[@id="field-savedBy" and .="Newcomer"]'));
    await open('/build/content?type=grower');
    await see('Newcomer');
  });

  test('adds and removes rows and columns of a table', async () => {
    await open('/build/content/new/page');
    await write('field-title', 'A table');
    await (
      await browser.wait(until.elementLocated(By.css('.rich [contenteditable]')), WAIT)
    ).click();
    await press('Table');
    const size = async (): Promise<string> => {
      const rows = await browser.findElements(By.css('.rich tr'));
      const cells = await browser.findElements(By.css('.rich tr:first-child > *'));
      return `${rows.length} × ${cells.length}`;
    };
    await browser.findElement(By.css('.rich [contenteditable] th')).click();
    expect(await size()).toBe('3 × 2');
    await press('Add row');
    await press('Add column');
    expect(await size()).toBe('4 × 3');
    await press('Remove row');
    await press('Remove column');
    expect(await size()).toBe('3 × 2');
  });

  test('links words to an entry by its name', async () => {
    await open('/build/content/new/page');
    await write('field-title', 'Linked by name');
    await (
      await browser.wait(until.elementLocated(By.css('.rich [contenteditable]')), WAIT)
    ).click();
    await keys('Seeds');
    await press('Link');
    await pick('input[placeholder="Or to an entry, by name"]', 'Edda Marsh');
    await press('Save');
    await browser.wait(until.urlMatches(/content\/page-[0-9a-f]+/), WAIT);
    await press('Publish now');
    await see('Live at /linked-by-name');
    expect(await publicPage('/linked-by-name')).toContain('<a href="/growers/edda-marsh">');
  });

  test('deletes an entry, says so, and brings it back', async () => {
    await open('/build/content/old-harbour-squash');
    await press('Timing');
    await pressStarting('Delete');
    await press('Delete now');
    const path = '/varieties/squashes/old-harbour-squash';
    const status = async (): Promise<number> => (await fetch(server.url + path)).status;
    await browser.wait(async () => (await status()) === 410, WAIT);
    await clickOn(By.css('[role=status] button'));
    await browser.wait(async () => (await status()) === 200, WAIT);
  });
});

describe('unsaved changes stay while the clock moves', () => {
  test('of a listing, and what they give is shown as of then', async () => {
    await open('/build/listings/sow-this-month');
    await see('In (');
    await writeAt(By.xpath('(//input[@aria-label="Value"])[3]'), '5');
    await pressStarting('Left out');
    await see('packets in stock is more than 5');
    await press('Later');
    await see('unsaved');
    await browser.wait(until.urlContains('at='), WAIT);
    const [input] = (await browser.findElements(By.css('input[aria-label="Value"]'))).slice(2);
    expect(await input!.getAttribute('value')).toBe('5');
    await see('packets in stock is more than 5');
  });

  test('of a type', async () => {
    await open('/build/types/variety');
    await write('address', '/later/{title}');
    await see('/later/');
    await press('Later');
    await browser.wait(until.urlContains('at='), WAIT);
    expect(await valueOf('address')).toBe('/later/{title}');
    await see('/later/');
  });
});

describe('now', () => {
  test('comes after the machine slept: the strip says the hour it is then', async () => {
    await open('/build');
    await see('Now · ');
    const strip = async (): Promise<string> =>
      (await browser.findElement(By.css('.clock-strip button'))).getText();
    const before = await strip();
    await browser.executeScript(
      'const real = Date.now; Date.now = () => real() + 2 * 3600e3; window.dispatchEvent(new Event("focus"));',
    );
    await browser.wait(async () => (await strip()) !== before, WAIT);
  });
});

describe('the sentence of a listing', () => {
  test('takes several values, joined by "or"; released, the public page follows', async () => {
    await open('/build/listings/growers');
    await see('In (');
    await open('/build/listings/all-varieties');
    await see('In (');
    await choose('Add a condition', 'family');
    await choose('Operator', 'any-of');
    await choose('Value', 'peas');
    await press('or …');
    await choose('Value', 'beets');
    await see('peas');
    await press('Release this now …');
    await press('Release now');
    await browser.wait(
      async () => !(await publicPage('/varieties')).includes('Chapel Runner'),
      WAIT,
    );
    const page = await publicPage('/varieties');
    expect(page).toContain('Ember Beet');
    await open('/build/listings/all-varieties');
    await see('In (');
    expect(await browser.findElements(By.css('select[aria-label="Value"]'))).toHaveLength(2);
  });

  test('finds the entry that is compared with by its name', async () => {
    await open('/build/listings/traits');
    await see('In (');
    await choose('Add a condition', 'savedBy');
    await choose('Operator', 'is');
    await pick('[id^="value-"]', 'Edda Marsh');
    await ready(By.xpath('//button[@title="Value" and contains(., "Edda")]'));
  });
});

describe('an instant that is planned', () => {
  test('can be picked as a day from a calendar, and is read back in full', async () => {
    await open('/build/content/volunteer');
    await press('Timing');
    await press('Calendar');
    await ready(By.css('[role=grid] button[tabindex="0"]'));
    const field = await ready(By.css('[aria-label^="Publish at"]'));
    await keys(Key.ARROW_RIGHT, Key.ENTER);
    await browser.wait(async () => (await field.getAttribute('value')) !== '', WAIT);
    await see('Europe/Dublin');
  });
});
