import { By, Key, until } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import {
  browser,
  clickOn,
  expectAccessible,
  inAnotherBrowser,
  inPreview,
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

/** Writes where the cursor stands. */
const type = (...keys: string[]): Promise<void> =>
  browser
    .actions()
    .sendKeys(...keys)
    .perform();

describe('rich text', () => {
  test('what every tool of the toolbar makes is saved, is there after a reload, and stands on the page', async () => {
    await open('/build/content/new/page');
    await write('field-title', 'All tools');
    await browser.findElement(By.css('.rich [contenteditable]')).click();
    await type('Plain. ');
    await press('Bold');
    await type('Stark. ');
    await press('Bold');
    await press('Italic');
    await type('Leaning. ');
    await press('Italic');
    await type(Key.ENTER);
    await press('Heading');
    await type('A heading', Key.ENTER);
    await press('Subheading');
    await type('A lower one', Key.ENTER);
    await press('List');
    await type('a point', Key.ENTER, Key.ENTER);
    await press('Numbered list');
    await type('first of all', Key.ENTER, Key.ENTER);
    await press('Quote');
    await type('as was said', Key.ENTER, Key.ENTER);
    await press('Link');
    await writeInto('Where the selected words lead', '/about-the-library');
    await press('Set link');
    await type(Key.END, Key.ENTER);
    await press('Picture');
    await writeInto('Find by name or words', 'butter-leaf');
    // Only what fits is offered after a moment.
    await clickOn(By.css('.rich li:only-child > button:has([title="butter-leaf.webp"])'));
    await type(Key.ENTER);
    await press('Table');
    await browser.findElement(By.css('.rich [contenteditable] th')).click();
    await type('Crop');
    await press('Save');
    await browser.wait(until.urlMatches(/content\/page-[0-9a-f]+/), WAIT);
    await open(new URL(await browser.getCurrentUrl()).pathname);
    await browser.wait(until.elementLocated(By.css('.rich [contenteditable] table')), WAIT);
    expect(await browser.findElement(By.css('.rich [contenteditable]')).getText()).toContain(
      'as was said',
    );
    await press('Publish now');
    await see('Live at /all-tools');
    const page = await publicPage('/all-tools');
    expect(page).toContain('<strong>Stark. </strong>');
    expect(page).toContain('<em>Leaning. </em>');
    expect(page).toMatch(/<h2[^>]*>A heading<\/h2>/);
    expect(page).toMatch(/<h3[^>]*>A lower one<\/h3>/);
    expect(page).toMatch(/<ul>\s*<li>(<p>)?a point/);
    expect(page).toMatch(/<ol>\s*<li>(<p>)?first of all/);
    expect(page).toMatch(/<blockquote>\s*<p>as was said/);
    expect(page).toContain('<a href="/about-the-library">/about-the-library</a>');
    expect(page).toMatch(/<img[^>]+alt="Seeds of Butter Leaf/);
    expect(page).toMatch(/<th[^>]*>(<p>)?Crop/);
  });
});

describe('an entry', () => {
  test('shows its page while one types, in a sandbox that scripts in it cannot leave', async () => {
    await open('/build/content/frost-lettuce');
    await inPreview('Small tight heads');
    await write('field-summary', 'Heads <b>as hard</b> as ice.');
    await inPreview('Heads <b>as hard</b> as ice.');
    expect(await browser.findElement(By.css('iframe')).getAttribute('sandbox')).toBe(
      'allow-scripts allow-forms',
    );
  });

  test('saved is not published; published is public at once, and the screen says where', async () => {
    const page = (): Promise<string> => publicPage('/varieties/leaves/frost-lettuce');
    await press('Save');
    await see('Not public until it is published');
    expect(await page()).not.toContain('as ice');
    await press('Publish now');
    await see('Live at /varieties/leaves/frost-lettuce');
    expect(await page()).toContain('as ice');
  });

  test('unsaved words, rich text and links among them, are kept in the browser and can be brought back', async () => {
    await open('/build/content/tidewater-pea');
    await ready(By.css('.rich'));
    const story = await browser.wait(until.elementLocated(By.id('field-story')), WAIT);
    await browser.executeScript('arguments[0].scrollIntoView({ block: "center" })', story);
    await story.click();
    await story.sendKeys(Key.chord(Key.CONTROL, Key.END), ' Kept by the tide.');
    await story.sendKeys(Key.chord(Key.SHIFT, Key.HOME));
    await press('Link');
    await writeInto('Where the selected words lead', '/about-the-library');
    await press('Set link');
    await inPreview('Kept by the tide.');
    await see('unsaved changes');
    await browser.wait(
      async () =>
        browser.executeScript(
          `return (localStorage.getItem('bontel.unsaved-words.tidewater-pea') ?? '').includes('about-the-library')`,
        ),
      WAIT,
    );
    await open('/build/content/tidewater-pea');
    await press('Bring them back');
    await inPreview('Kept by the tide.');
    expect(await browser.findElement(By.id('field-story')).getText()).toContain(
      'Kept by the tide.',
    );
    await press('Save');
    await see('Not public until it is published');
  });

  test('a new one is written, saved, published ahead of time, and stands in Content as scheduled', async () => {
    await open('/build/content/new/page');
    await write('field-title', 'Rainwater & barrels');
    await inPreview('Rainwater & barrels');
    await press('Save');
    await browser.wait(until.urlMatches(/content\/page-[0-9a-f]+/), WAIT);
    const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
    await press('Timing');
    await writeAt(By.css('[aria-label^="Publish at"]'), `${tomorrow} 8:00`);
    await pressStarting('Publish at');
    await see('goes live');
    await open('/build/content?search=Rainwater');
    await see('scheduled');
    await open(`/build/addresses?try=/rainwater-barrels&at=${tomorrow}T12:00:00Z`);
    await see('stands here');
  });

  test('a planned instant that passes is seen in form, plan and preview, and unsaved words stay', async () => {
    await open('/build/content/volunteer');
    await press('Timing');
    await writeAt(By.css('[aria-label^="Publish at"]'), '+15s');
    await pressStarting('Publish at');
    await see('goes live');
    await write('field-title', 'Rota in the making');
    await see('· live');
    expect(await words()).toContain('unsaved changes');
    expect(await browser.findElement(By.id('field-title')).getAttribute('value')).toBe(
      'Rota in the making',
    );
    expect((await fetch(`${server.url}/about-the-library/volunteer-rota`)).status).toBe(200);
  });

  test('unsaved words stay in the form while the clock moves, and a line says so', async () => {
    await open('/build/content/tidewater-pea');
    await write('field-summary', 'Not yet saved.');
    await browser.executeScript('window.stayed = true');
    await press('Later');
    await see('Your unsaved changes (Summary) stay');
    expect(await browser.findElement(By.id('field-summary')).getAttribute('value')).toBe(
      'Not yet saved.',
    );
    await press('Now');
    await see('unsaved changes');
    expect(await browser.executeScript('return window.stayed')).toBe(true);
  });

  test('retiring asks first, says what goes, and is undone', async () => {
    await open('/build/content/ember-beet');
    await press('Timing');
    await pressStarting('Retire now');
    await see('/varieties/beets/ember-beet');
    await press('Retire now');
    const status = async (): Promise<number> =>
      (await fetch(`${server.url}/varieties/beets/ember-beet`)).status;
    await browser.wait(async () => (await status()) !== 200, WAIT);
    await clickOn(By.css('[role=status] button'));
    await browser.wait(async () => (await status()) === 200, WAIT);
  });

  test('what two people write at once is not lost: the later one sees both', async () => {
    await open('/build/content/candle-beet');
    await write('field-summary', 'Mine, written first.');
    const [here] = await browser.getAllWindowHandles();
    await browser.switchTo().newWindow('tab');
    await open('/build/content/candle-beet');
    await write('field-summary', 'Theirs, saved first.');
    await press('Save');
    await see('Not public until it is published');
    await see('You have this open in another window');
    await browser.close();
    await browser.switchTo().window(here!);
    await see('Theirs, saved first.');
    expect(await browser.findElement(By.id('field-summary')).getAttribute('value')).toBe(
      'Mine, written first.',
    );
  });

  test('one after another is written and published, each keeping what was chosen', async () => {
    await open('/build/content/new/grower');
    await write('field-name', 'First of two');
    await write('field-bio', 'Ashmarket');
    await press('Publish and write another …');
    await (await ready(By.xpath('//label[contains(., "Bio")]/input'))).sendKeys(Key.SPACE);
    await press('Publish now, and go on');
    await see('Published. Here is the next one.');
    await browser.wait(
      async () => (await (await ready(By.id('field-bio'))).getAttribute('value')) === 'Ashmarket',
      WAIT,
    );
    expect(await (await ready(By.id('field-name'))).getAttribute('value')).toBe('');
    await press('Save');
    await clickOn(By.xpath('//nav[@aria-label="What is to be mended"]//button'));
    expect(await browser.switchTo().activeElement().getAttribute('id')).toBe('field-name');
  });

  test('unsaved words are offered on another machine, and leaving them is asked about first', async () => {
    await open('/build/content/doorstep-squash');
    await write('field-summary', 'Begun on one machine.');
    await browser.wait(async () => (await keptWords()).includes('Begun on one'), WAIT);
    await inAnotherBrowser(async () => {
      await open('/build/content/doorstep-squash');
      await see('are kept for you');
      await press('Bring them back');
      await see('You have this open in another window');
      const summary = await ready(By.id('field-summary'));
      expect(await summary.getAttribute('value')).toBe('Begun on one machine.');
    });
    await clickOn(By.linkText('Types'));
    await see('Leave with unsaved changes?');
    await press('Stay');
    await clickOn(By.linkText('Types'));
    await press('Save and leave');
    await browser.wait(until.urlContains('/build/types'), WAIT);
    await open('/build/content/doorstep-squash');
    await see('live with newer draft');
    expect(await words()).not.toContain('are kept for you');
  });
});

test('a version is saved with a note, compared word by word, and put into the form again', async () => {
  await open('/build/content/lantern-pea');
  const before = (await (await ready(By.id('field-summary'))).getAttribute('value'))!;
  await write('field-summary', `${before} More words.`);
  await clickOn(By.xpath('//*[@role="tab"][.="Versions"]'));
  await writeAt(By.css('[placeholder="What changed, and why"]'), 'Two words more');
  await press('Save');
  await see('Saved as version');
  await see('Two words more');
  const added = await ready(By.xpath('//ins[contains(., "More words.")]'));
  expect(await added.isDisplayed()).toBe(true);
  await expectAccessible();
  await clickOn(By.css('[aria-label^="Version 1, public from"]'));
  await see('Choose two versions to compare.');
  await clickOn(By.css('[aria-label="Version 2 as the later one"]'));
  await pressStarting('Put version');
  await browser.wait(
    async () =>
      (await browser.findElement(By.id('field-summary')).getAttribute('value')) === before,
    WAIT,
  );
  await press('Undo changes');
});

/** The words that the server keeps of an entry that is open here. */
function keptWords(): Promise<string> {
  return browser.executeAsyncScript(`
    const done = arguments[arguments.length - 1];
    const entry = decodeURIComponent(location.pathname.split('/').pop());
    const body = { entry, type: 'variety', window: 'a test', writing: false, asks: true };
    fetch('/api/writing', { method: 'POST', body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' } })
      .then((answer) => answer.json()).then(({ copy }) => done(JSON.stringify(copy)));`);
}
