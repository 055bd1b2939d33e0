import { By, Key } from 'selenium-webdriver';
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
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

const choose = async (label: string, option: string): Promise<void> =>
  (await ready(By.css(`[aria-label="${label}"]`))).sendKeys(option);
/** What stands in the boxes of the helpers, one after the other. */
const inputs = (): Promise<string[]> =>
  browser.executeScript(
    `return [...document.querySelectorAll('[role=group][aria-label^="Helpers "] input')]
       .map((input) => input.value)`,
  );
const release = async (): Promise<void> => {
  await press('Release this now …');
  await press('Release now');
};

test('a group of fields is made, its items are written, moved and kept in order', async () => {
  await open('/build/types/swap-day');
  await pressStarting('Fields');
  await writeInto('Name of the new field', 'Helpers');
  await choose('Kind of the new field', 'Group');
  await press('Add field');
  await writeInto('Name of a new field of Helpers', 'Who');
  await press('Add');
  await writeInto('Name of a new field of Helpers', 'Hours');
  await choose('Kind of a new field of Helpers', 'Number');
  await press('Add');
  await clickOn(By.xpath('//label[contains(., "Holds several")]/input'));
  await release();
  await see('Released');
  await open('/build/content?type=swap-day');
  await clickOn(By.linkText('Midwinter swap'));
  await press('Add one');
  await press('Add another');
  const fields = await browser.findElements(By.css('[role=group][aria-label^="Helpers "] input'));
  for (const [i, words] of ['Ann', '3', 'Bo', '4'].entries()) await fields[i]!.sendKeys(words);
  await clickOn(By.css('[aria-label="Up: Helpers 2"]'));
  await press('Save');
  await see('Saved as version 2');
  await browser.navigate().refresh();
  await see('Helpers');
  await ready(By.css('[aria-label="Up: Helpers 2"]'));
  expect(await inputs()).toEqual(['Bo', '4', 'Ann', '3']);
});

test('a field of a group holds something else, and is given another key', async () => {
  const openHours = async (): Promise<void> => {
    await open('/build/types/swap-day');
    await pressStarting('Fields');
    await pressStarting('Helpers');
    await pressStarting('Hours');
  };
  await openHours();
  await (await ready(By.id('field-helpers.hours-kind'))).sendKeys('Text');
  await see('1 entry holds a value in it; all of them fit.');
  await release();
  await see('Released');
  await open('/build/content?type=swap-day');
  await clickOn(By.linkText('Midwinter swap'));
  await ready(By.css('[aria-label="Up: Helpers 2"]'));
  expect(await inputs()).toEqual(['Bo', '4', 'Ann', '3']);
  await openHours();
  const key = await ready(By.css('[id^="field-helpers."][id$="-key"][value="hours"]'));
  await key.sendKeys(Key.chord(Key.CONTROL, 'a'), 'time');
  await see('Nothing else reads it.');
  await key.sendKeys(Key.ENTER);
  await see('On the bench: Swap day, Helpers, Hours: key time, was hours.');
});

test('what leads to an entry is taken away and added from its own side', async () => {
  await open('/build/content?type=grower');
  await clickOn(By.linkText('Bram Okoro'));
  await clickOn(By.xpath('//*[@role="tab"][contains(., "What leads here")]'));
  await clickOn(By.css('[aria-label="Take Butter Leaf away from here"]'));
  await see('of “Butter Leaf”. It is public once that is published.');
  const held = By.css('[aria-label="Take Butter Leaf away from here"]');
  await browser.wait(async () => (await browser.findElements(held)).length === 0, WAIT);
  await (await ready(By.css('input[placeholder="Add Variety …"]'))).sendKeys('Butter');
  await clickOn(By.xpath('//*[@role="option"][contains(., "Butter Leaf")]'));
  await ready(held);
});

test('one setting of all types is compared, set for two at once and released', async () => {
  await open('/build/types');
  const compare = await ready(By.xpath('//label[contains(., "Compare")]//select'));
  await compare.sendKeys('When an address is taken');
  for (const label of ['Grower', 'Page'])
    await clickOn(By.css(`[aria-label="Set it for ${label}"]`));
  await choose('When an address is taken', 'the later entry is refused');
  await press('Set for 2 types');
  await see('the later entry is refused · not saved');
  await release();
  await see('Released');
  await open('/build/types/page');
  const clash = await ready(By.xpath('//select[option[contains(., "refused")]]'));
  expect(await clash.getAttribute('value')).toBe('refuse');
});

test('a timing rule is written as a sentence, with what it does to an entry and to all that are live', async () => {
  await open('/build/types/page');
  await pressStarting('Timing');
  await press('Add a rule');
  await see('retires 14 days after it went live first');
  await choose('What it does', 'Retires');
  await (await ready(By.css('[aria-label="How many"]'))).sendKeys('00');
  await see('retires 1,400 days after it went live first');
  await see('live entries leave at another time');
  await choose('Unit', 'hours');
  await choose('Add a condition', 'title');
  await see('is not blank');
  await press('Keep on the bench');
  await see('On the bench: Page: timing');
  await open('/build/types');
  expect(
    await browser.executeScript(`return document.querySelector(
    '[title^="retires 1,400 hours after it went live first"]')?.innerText`),
  ).toBe('set');
});
