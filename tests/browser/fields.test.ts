import { By, Key, Origin } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  browser,
  clickOn,
  open,
  press,
  pressStarting,
  ready,
  see,
  serveBuilder,
  WAIT,
  words,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

const pressLabelled = async (label: string): Promise<void> =>
  clickOn(By.css(`[aria-label="${label}"]`));
const release = async (): Promise<void> => {
  await press('Release this now …');
  await press('Release now');
  await see('Released');
};
/** What the fields are called, in their order. */
const fieldNames = (): Promise<string[]> =>
  browser.executeScript(
    `return [...document.querySelectorAll('[aria-label="Fields"] > li button[aria-expanded] > span:first-child')]
       .map((name) => name.innerText)`,
  );

/** Drags a thing by its grip, onto another, in small steps as a hand does. */
async function drag(grip: By, onto: By): Promise<void> {
  const [from, to] = [await ready(grip), await ready(onto)];
  await browser.executeScript('arguments[0].scrollIntoView({ block: "center" })', from);
  const [a, b] = [await from.getRect(), await to.getRect()];
  const move = browser.actions({ async: true }).move({ origin: from }).press();
  for (const part of [0.1, 0.4, 0.7, 1])
    move.move({
      origin: Origin.POINTER,
      x: 0,
      y: Math.round((b.y + b.height / 2 - a.y - a.height / 2) * (part === 0.1 ? 0.1 : 0.3)),
      duration: 60,
    });
  await move.release().perform();
}

test('fields are put in another order by dragging, and the form follows', async () => {
  await open('/build/types/page');
  await pressStarting('Fields');
  const [first, second, third] = await fieldNames();
  const row = (i: number): string => `//ol[@aria-label="Fields"]/li[${i}]`;
  await drag(By.xpath(`${row(1)}//span[@title]`), By.xpath(`${row(2)}//span[@title]`));
  await browser.wait(async () => (await fieldNames())[0] === second, WAIT, 'the field moves');
  expect(await fieldNames()).toEqual([second, first, third]);
  await release();
  await open('/build/content/new/page');
  await see(second!);
  const labels = await browser.executeScript(
    `return [...document.querySelectorAll('label[for^="field-"]')].map((l) => l.innerText)`,
  );
  expect((labels as string[]).slice(0, 2).map((l) => l.replace(' (required)', ''))).toEqual([
    second,
    first,
  ]);
});

test('a field makes the type that it leads to; what one alone may lead to is taken over, said first', async () => {
  await open('/build/types/swap-day');
  await pressStarting('Fields');
  await writeInto('Name of the new field', 'Hall');
  await (await ready(By.css('[aria-label="Kind of the new field"]'))).sendKeys('Reference');
  await press('Add field');
  await writeInto('Name of a new type to lead to', 'Hall');
  await press('Make it');
  await see('New: hall, made with this field');
  await (
    await ready(By.xpath('//select[option[starts-with(., "One Swap day at most")]]'))
  ).sendKeys('One');
  await release();
  await open('/build/content/new/hall');
  await (await ready(By.css('[id^="field-"]'))).sendKeys('Chapel hall');
  await press('Save');
  await see('Saved as version 1');
  for (const day of ['Midwinter swap', 'Label-writing evening']) {
    await open('/build/content?type=swap-day');
    await clickOn(By.linkText(day));
    await (await ready(By.id('field-hall'))).sendKeys('Chapel');
    await clickOn(By.xpath('//*[@role="option"][contains(., "Chapel hall")]'));
    await press('Save');
    if (day === 'Midwinter swap') await see('Saved as version');
  }
  await see('Take it away there, and save');
  expect(await words()).toContain('Midwinter swap');
  await press('Take it away there, and save');
  await see('Saved as version');
  await open('/build/content?type=swap-day');
  await clickOn(By.linkText('Midwinter swap'));
  await ready(By.id('field-hall'));
  expect(await words()).not.toContain('Chapel hall');
});

test('an entry has something otherwise than its type, says so, and goes back', async () => {
  await open('/build/content?type=grower');
  await clickOn(By.linkText('Bram Okoro'));
  await clickOn(By.xpath('//summary[starts-with(., "Presets")]'));
  await (await ready(By.id('preset-index'))).sendKeys('Here: no');
  await see('Presets: 1 set here');
  await press('Save');
  await see('Saved as version');
  await browser.navigate().refresh();
  await see('Presets: 1 set here');
  await clickOn(By.xpath('//summary[starts-with(., "Presets")]'));
  await pressLabelled('Search engines may list it: as the type has it');
  await see('Presets: all as the type has them');
});

test('the order of those that lead to an entry is set from there, by keys', async () => {
  await open('/build/content?type=grower');
  await clickOn(By.linkText('Bram Okoro'));
  await clickOn(By.xpath('//*[@role="tab"][contains(., "What leads here")]'));
  const names = (): Promise<string[]> =>
    browser.executeScript(
      `return [...document.querySelectorAll('button[aria-label^="Take "]')].map((b) => b.ariaLabel)`,
    );
  await ready(By.css('button[aria-label^="Take "]'));
  const [first, second] = await names();
  const up = await ready(
    By.css('button[aria-label^="Move "][aria-label$=" up"][aria-disabled="false"]'),
  );
  await up.sendKeys(Key.ENTER);
  await browser.wait(async () => (await names())[0] === second, WAIT, 'it moves up');
  expect((await names())[1]).toBe(first);
  await press('Save');
  await see('Saved as version');
});
