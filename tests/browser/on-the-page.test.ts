import { By, Key, until } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  WAIT,
  browser,
  clickOn,
  expectAccessible,
  inPreview,
  open,
  press,
  publicPage,
  ready,
  see,
  serveBuilder,
  words,
  write,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

/** Does something inside the page that is shown. */
async function onThePage<T>(act: () => Promise<T>): Promise<T> {
  await browser.switchTo().frame(await browser.findElement(By.css('iframe[src]')));
  try {
    return await act();
  } finally {
    await browser.switchTo().defaultContent();
  }
}

/** Presses a button that is laid over the page, by what it is read out as. */
const pressTool = (label: string): Promise<void> =>
  onThePage(async () => {
    const tool = By.css(`#tools [aria-label="${label}"]`);
    const found = await browser.wait(
      async () => (await browser.findElements(tool))[0] ?? null,
      WAIT,
      `waiting for ${label}`,
    );
    await browser.executeScript('arguments[0].focus()', found!);
    await found!.click();
  });

/** Presses a button at what has such words. */
const pressAt = (label: string, words: string): Promise<void> =>
  onThePage(async () => {
    const tool = By.xpath(
      `//*[@id="tools"]//button[.="${label}"][contains(@aria-label, "${words}")]`,
    );
    const found = await browser.wait(
      async () => (await browser.findElements(tool))[0] ?? null,
      WAIT,
    );
    await browser.executeScript('arguments[0].focus()', found!);
    await found!.click();
  });

/** Waits until one can type in a field of an entry's form. */
const focusIn = (key: string): Promise<unknown> =>
  browser.wait(
    async () =>
      await browser.executeScript<boolean>(
        'return document.activeElement?.closest(arguments[0]) !== null',
        `#field-${key}`,
      ),
    WAIT,
    `waiting for the focus in ${key}`,
  );

const SUMMARY = 'A grey-seeded bean that dries on the poles and keeps for years.';

test('a text is written on where it stands; it is a draft until it is published, and is taken back', async () => {
  await open('/build/view/varieties/beans/slate-roof');
  await inPreview(SUMMARY);
  await pressTool(`Change: ${SUMMARY.slice(0, 40)}`);
  await onThePage(async () => {
    await browser.wait(
      async () => (await browser.findElements(By.css('[data-written]'))).length === 1,
      WAIT,
    );
    const line = await browser.findElement(By.css('[data-written]'));
    await line.sendKeys('Dries on the poles.', Key.chord(Key.CONTROL, Key.ENTER));
  });
  await see('Summary of “Slate Roof” is saved; not public until it is published.');
  await browser.wait(
    async () => (await browser.getCurrentUrl()).includes('seeing=draft'),
    WAIT,
    'waiting for the draft to be seen',
  );
  await inPreview('Dries on the poles.');
  expect(await publicPage('/varieties/beans/slate-roof')).toContain(SUMMARY);
  await expectAccessible();
  await press('Undo');
  await inPreview(SUMMARY);
});

test('Escape leaves a text as it was', async () => {
  await open('/build/view/varieties/beans/slate-roof');
  await inPreview(SUMMARY);
  await pressTool('Change: Slate Roof');
  await onThePage(async () => {
    const line = await browser.wait(
      async () => (await browser.findElements(By.css('[data-written]')))[0] ?? null,
      WAIT,
    );
    await line!.sendKeys('Roof', Key.ESCAPE);
    expect(await (await browser.findElement(By.css('h1'))).getText()).toBe('Slate Roof');
  });
});

test('a page that is drawn anew meanwhile takes nothing of what is being written', async () => {
  await open('/build/view/varieties/beans/slate-roof');
  await inPreview(SUMMARY);
  await pressTool('Change: Slate Roof');
  await onThePage(async () => {
    const line = await browser.wait(
      async () => (await browser.findElements(By.css('[data-written]')))[0] ?? null,
      WAIT,
    );
    await line!.sendKeys('Slate');
  });
  await browser.executeScript(
    `document.querySelector('iframe').contentWindow.postMessage({ html: '<p>Anew</p>' }, '*')`,
  );
  await onThePage(async () => {
    const line = await browser.findElement(By.css('[data-written]'));
    expect(await line.getText()).toBe('Slate');
    await line.sendKeys(Key.ESCAPE);
  });
  await inPreview('Anew');
});

test('what is added at a list begins with what makes it stand there', async () => {
  await open('/build/view/sow-now');
  await inPreview('Sow this month');
  await onThePage(async () => {
    const tool = await browser.wait(
      async () => (await browser.findElements(By.xpath('//button[.="Add here"]')))[0] ?? null,
      WAIT,
    );
    await browser.executeScript('arguments[0].focus()', tool!);
    await tool!.click();
  });
  await see('Filled in so that it stands at “Sow this month”.');
  const stock = await ready(By.id('field-stock'));
  expect(await stock.getAttribute('value')).toBe('1');
  await browser.findElement(By.xpath('//button[normalize-space()="Where listed"]')).click();
  await see('Sow this month');
});

test('what is added to what was picked by hand joins it when it is saved', async () => {
  await open('/build/view');
  await inPreview('Frost Lettuce');
  await pressAt('Add here', 'Purple-podded');
  await see('In them');
  await press('New …');
  await clickOn(By.xpath('//*[@role="menuitem"][contains(., "Guide")]'));
  await see('Joins “On the shelf” when it is saved.');
  await write('field-title', 'Sowing in trays');
  await press('Save');
  await see('Saved as version 1.');
  await open('/build/listings/picks/shelf');
  await see('Sowing in trays');
  await see('not live, so not shown');
});

test('another field leads to where it is filled in', async () => {
  await open('/build/view/varieties/beans/slate-roof');
  await inPreview('Legumes');
  await pressAt('Edit', 'Legumes');
  await focusIn('family');
});

test('a card is taken off the site where it stands, asked first, and put back', async () => {
  await open('/build/view/sow-now');
  await inPreview('Ballast Carrot');
  await pressAt('Retire', 'Ballast');
  await see('Retire “Ballast Carrot” now');
  await press('Retire now');
  await see('“Ballast Carrot” is off the site.');
  expect(await publicPage('/sow-now')).not.toContain('Ballast Carrot');
  await press('Undo');
  await see('1 entry is as before.');
  expect(await publicPage('/sow-now')).toContain('Ballast Carrot');
});

test('a card is made to stand first in its list, for a while, and does so once that is released', async () => {
  const first = async (): Promise<string> =>
    /<h3[^>]*><a[^>]*>([^<]*)/.exec(await publicPage('/sow-now'))![1]!;
  const before = await first();
  expect(before).not.toBe('Frost Lettuce');
  await open('/build/view/sow-now');
  await inPreview('Frost Lettuce');
  await pressAt('Stand first', 'Frost Lettuce');
  await see('stands first · ');
  await writeInto('Frost Lettuce: until', '2020-01-01');
  await see('In (');
  await browser.wait(async () => !(await words()).includes('stands first · '), WAIT);
  await writeInto('Frost Lettuce: until', 'some day');
  await see('"some day" is no instant.');
  await expectAccessible();
  await writeInto('Frost Lettuce: until', '9999-01-01');
  await see('stands first until ');
  await press('Release this now …');
  await press('Release now');
  await see('Released ');
  expect(await first()).toBe('Frost Lettuce');
  await press('Undo');
  await see('Taken back');
  expect(await first()).toBe(before);
});

test('a page of a further language is written on in it, and as before in the others', async () => {
  const path = '/de/sorten/moehren/ballastmoehre';
  const own = 'Stumpf, nach Frost süß, und von Steinen unbeeindruckt.';
  await open(`/build/view${path}`);
  await inPreview(own);
  await pressTool(`Change: ${own.slice(0, 40)}`);
  await onThePage(async () => {
    const line = await browser.wait(
      async () => (await browser.findElements(By.css('[data-written]')))[0] ?? null,
      WAIT,
    );
    await line!.sendKeys('Kurz und süß.', Key.chord(Key.CONTROL, Key.ENTER));
  });
  await see('Summary (Deutsch) of “Ballast Carrot” is saved; not public until it is published.');
  await inPreview('Kurz und süß.');
  expect(await publicPage(path)).toContain(own);
  await open('/build/content/ballast-carrot?language=de');
  await press('Publish now');
  await see('Live at ');
  expect(await publicPage(path)).toContain('Kurz und süß.');
  expect(await publicPage('/varieties/carrots/ballast-carrot')).not.toContain('Kurz und süß.');
});

test('words that stand in for those of a language lead to where these are filled in, and so does what is done to a card', async () => {
  await open('/build/view/de/sorten/zwiebeln/white-ladle-onion');
  await inPreview('A mild white onion the shape of a spoon.');
  await pressAt('Edit', 'A mild white onion');
  await browser.wait(until.urlContains('language=de'), WAIT);
  await focusIn('summary');
  await open('/build/view/de/jetzt-aussaeen');
  await inPreview('Ballastmöhre');
  await pressAt('Retire', 'Ballastmöhre');
  await browser.wait(until.urlContains('/build/content/ballast-carrot?language=de'), WAIT);
});

test('links lead on within the site, and the past is only looked at', async () => {
  await open('/build/view');
  await inPreview('On the shelf');
  await onThePage(async () => (await browser.findElement(By.linkText('Guides'))).click());
  await browser.wait(
    async () => (await browser.getCurrentUrl()).includes('/build/view/guides'),
    WAIT,
  );
  const past = new Date(Date.now() - 2 * 86_400_000).toISOString();
  await open(`/build/view/guides?at=${past}`);
  await see('the past is only looked at');
  await inPreview('Guides');
  await onThePage(async () =>
    expect(await browser.findElements(By.css('#tools button'))).toEqual([]),
  );
});

test('public pages carry nothing of it', async () => {
  for (const path of ['/', '/varieties/beans/slate-roof', '/sow-now']) {
    const html = await publicPage(path);
    expect(html).not.toMatch(
      /<!--\/?(place|block)|contenteditable|<script(?! type="(application\/ld\+json|module" src="\/style\/page\.js)")/,
    );
  }
});
