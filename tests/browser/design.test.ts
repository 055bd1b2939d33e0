import { By, until } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import {
  browser,
  clickOn,
  open,
  press,
  pressStarting,
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

describe('the design', () => {
  test('a broken address pattern says what is wrong and offers the field; mended, its outcome follows; saved, former addresses lead on', async () => {
    await open('/build/types/variety');
    await write('address', '/seeds-to-borrow/{titel}');
    await see('Did you mean "title"?');
    expect(
      await browser.findElement(By.xpath('//button[.="Release this now …"]')).isEnabled(),
    ).toBe(false);
    await press('Use “title”');
    await see('/seeds-to-borrow/');
    await press('Release this now …');
    await press('Release now');
    await see('the former ones lead on');
    const moved = await fetch(`${server.url}/varieties/peas/tidewater-pea`, { redirect: 'manual' });
    expect([moved.status, moved.headers.get('location')]).toEqual([
      308,
      '/seeds-to-borrow/tidewater-pea',
    ]);
  });

  test('seeing with my draft, a list has the draft where it would stand', async () => {
    await open('/build/content/frost-lettuce');
    await write('field-title', 'Aaa Lettuce');
    await press('Save');
    await see('Not public until it is published');
    await open('/build/listings/all-varieties');
    await see('In (');
    expect(await browser.executeScript('return document.body.innerText')).not.toContain(
      'Aaa Lettuce',
    );
    await ready(By.css('select[aria-label=Seeing]'));
    await browser.executeScript(
      `const s = document.querySelector('select[aria-label=Seeing]'); Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(s, 'draft'); s.dispatchEvent(new Event('change', { bubbles: true }));`,
    );
    await browser.wait(until.urlContains('seeing=draft'), WAIT);
    await see('Aaa Lettuce');
    const first = await browser.findElement(By.css('table tbody tr:nth-child(2) a'));
    expect(await first.getText()).toBe('Aaa Lettuce');
  });

  test('what is left out says when it comes in, and the clock can be set to it', async () => {
    await open('/build/listings/sow-this-month');
    await see('In (');
    await pressStarting('Left out');
    await writeInto('Find an entry', 'Doorstep');
    await (
      await ready(
        By.xpath('//tr[contains(., "Doorstep Squash")]//button[starts-with(., "Appears")]'),
      )
    ).click();
    await browser.wait(until.urlContains('at='), WAIT);
    await pressStarting('In (');
    await see('Doorstep Squash');
  });

  test('addresses are found by path or name, former ones too', async () => {
    await open('/build/addresses');
    await writeInto('Search addresses', 'quay-carrot');
    await see('Leads on');
    await browser.wait(
      async () => (await browser.findElements(By.css('table tbody tr'))).length === 1,
      WAIT,
    );
    await clickOn(By.css('table tbody button'));
    await see('stood here, and stands at');
  });

  test('a listing shows who is in and who is left out while its sentence changes', async () => {
    await open('/build/listings/sow-this-month');
    await see('In (');
    const before = await browser.findElement(By.css('[role=tab]')).getText();
    await writeAt(By.xpath('(//input[@aria-label="Value"])[3]'), '50');
    await browser.wait(
      async () => (await browser.findElement(By.css('[role=tab]')).getText()) !== before,
      WAIT,
    );
    await pressStarting('Left out');
    await see('packets in stock is more than 50');
  });

  test('a part released by somebody else since it was opened is kept from being saved, with both shown', async () => {
    await open('/build/types/swap-day');
    await write('address', '/swaps/{title}');
    await see('/swaps/');
    const [here] = await browser.getAllWindowHandles();
    await browser.switchTo().newWindow('tab');
    await open('/build/types/swap-day');
    await write('address', '/meetings/{title}');
    await see('/meetings/');
    await press('Release this now …');
    await press('Release now');
    await see('the former ones lead on');
    await browser.close();
    await browser.switchTo().window(here!);
    await browser.wait(async () => {
      await browser.executeScript("window.dispatchEvent(new Event('focus'))");
      return (await words()).includes('Keep mine on top'); // after a time away it comes anew
    }, WAIT);
    expect(await words()).toMatch(
      /\/meetings\/\{title\}[\s\S]*\/swaps\/|\/swaps\/[\s\S]*\/meetings\//,
    );
    await press('Drop mine');
    await browser.wait(
      async () =>
        (await browser.findElement(By.id('address')).getAttribute('value')) === '/meetings/{title}',
      WAIT,
    );
  });

  test.each([
    ['/../{title}', 'A segment is "." or ".."'],
    ['//x/{title}', 'Between two slashes stands nothing'],
    ['/media/{title}', 'The site keeps /media for itself'],
    ['/sow-now', 'A listing stands at /sow-now'],
  ])('the pattern "%s", that no address can have, cannot be released', async (pattern, said) => {
    await open('/build/types/swap-day');
    await write('address', pattern);
    await see(said);
    expect(
      await browser.findElement(By.xpath('//button[.="Release this now …"]')).isEnabled(),
    ).toBe(false);
  });
});
