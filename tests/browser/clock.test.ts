import { By, Key, until } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import {
  browser,
  inPreview,
  keysAt,
  open,
  press,
  ready,
  see,
  serveBuilder,
  WAIT,
  words,
  writeAt,
} from '../helpers/builder.ts';

serveBuilder();

describe('the clock', () => {
  test('moves every screen: what is not there yet, what is there later', async () => {
    await open('/build/addresses?try=/varieties/peas/skylark-pea');
    await see('404');
    const slider = await ready(By.css('[role=slider]'));
    for (let i = 0; i < 12 && !(await browser.getCurrentUrl()).includes('T08:00'); i++) {
      await slider.sendKeys('.');
      await browser.sleep(700);
    }
    await see('stands here');
    expect(await slider.getAttribute('aria-valuetext')).toMatch(
      /Looking at .*Europe\/Dublin.*from now/,
    );
    await press('Now');
    await see('404');
  });

  test('in the past forms are read-only and only offer to restore', async () => {
    await open(
      `/build/content/ballast-carrot?at=${new Date(Date.now() - 60 * 86_400_000).toISOString()}`,
    );
    await see('The past stays as it was');
    const title = await browser.findElement(By.id('field-title'));
    expect([await title.getAttribute('value'), await title.isEnabled()]).toEqual([
      'Quay Carrot',
      false,
    ]);
    expect(
      (await browser.findElements(By.xpath('//button[starts-with(., "Publish")]'))).length,
    ).toBe(0);
    await inPreview('Quay Carrot');
  });

  test('words that are no instant are said to be none, and nothing can be looked at by them', async () => {
    await open('/build');
    // By a key: the ruler beside it may still be moving to its place.
    await keysAt(By.css('[aria-label="Clock"] button[title$="to type an instant."]'), Key.ENTER);
    for (const typed of ['some day', '32 Mar 2026', '0000-03-01 08:00']) {
      await writeAt(By.id('clock-instant'), typed);
      await see('This is no day and time');
      expect(await browser.findElement(By.css('[type=submit]')).isEnabled()).toBe(false);
    }
  });

  test('the year 26 can be looked at, and nothing was there', async () => {
    await open('/build/content?at=0026-03-01T08:00:00Z');
    await see('Content');
    expect(await words()).toMatch(/ 0?0?26/);
  });

  test.each(['yesterday-ish', '99999999999999999', '0000-01-01T00:00:00Z'])(
    'an address with ?at=%s says that it is no instant, in the words of the builder',
    async (at) => {
      await open(`/build/content?at=${at}`);
      await see('no instant');
      expect(await words()).not.toMatch(/Application error|Internal Server Error/);
    },
  );

  test('a move of the clock is a step back in the browser', async () => {
    await open('/build/content');
    await press('Later');
    await browser.wait(until.urlContains('at='), WAIT);
    await browser.navigate().back();
    await browser.wait(async () => !(await browser.getCurrentUrl()).includes('at='), WAIT);
    await see('Now ·');
  });
});
