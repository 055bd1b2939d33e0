import { By } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  browser,
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
  await (await ready(By.xpath('//label[contains(., "Holds several")]/input'))).click();
  await release();
  await see('Released');
  await open('/build/content?type=swap-day');
  await (await ready(By.linkText('Midwinter swap'))).click();
  await press('Add one');
  await press('Add another');
  const inputs = (): Promise<string[]> =>
    browser.executeScript(
      `return [...document.querySelectorAll('[role=group][aria-label^="Helpers "] input')]
         .map((input) => input.value)`,
    );
  const fields = await browser.findElements(By.css('[role=group][aria-label^="Helpers "] input'));
  for (const [i, words] of ['Ann', '3', 'Bo', '4'].entries()) await fields[i]!.sendKeys(words);
  await (await ready(By.css('[aria-label="Up: Helpers 2"]'))).click();
  await press('Save');
  await see('Saved as version 2');
  await browser.navigate().refresh();
  await see('Helpers');
  await ready(By.css('[aria-label="Up: Helpers 2"]'));
  expect(await inputs()).toEqual(['Bo', '4', 'Ann', '3']);
});

test('what leads to an entry is taken away and added from its own side', async () => {
  await open('/build/content?type=grower');
  await (await ready(By.linkText('Bram Okoro'))).click();
  await (await ready(By.xpath('//*[@role="tab"][contains(., "What leads here")]'))).click();
  await (await ready(By.css('[aria-label="Take Butter Leaf away from here"]'))).click();
  await see('of “Butter Leaf”. It is public once that is published.');
  const held = By.css('[aria-label="Take Butter Leaf away from here"]');
  await browser.wait(async () => (await browser.findElements(held)).length === 0, WAIT);
  await (await ready(By.css('input[placeholder="Add Variety …"]'))).sendKeys('Butter');
  await (await ready(By.xpath('//*[@role="option"][contains(., "Butter Leaf")]'))).click();
  await ready(held);
});

test('one setting of all types is compared, set for two at once and released', async () => {
  await open('/build/types');
  const compare = await ready(By.xpath('//label[contains(., "Compare")]//select'));
  await compare.sendKeys('When an address is taken');
  for (const label of ['Grower', 'Page'])
    await (await ready(By.css(`[aria-label="Set it for ${label}"]`))).click();
  await choose('When an address is taken', 'the later entry is refused');
  await press('Set for 2 types');
  await see('the later entry is refused · not saved');
  await release();
  await see('Released');
  await open('/build/types/page');
  const clash = await ready(By.xpath('//select[option[contains(., "refused")]]'));
  expect(await clash.getAttribute('value')).toBe('refuse');
});
