import { By, Key } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  chooseAt,
  clickOn,
  expectAccessible,
  open,
  press,
  ready,
  see,
  serveBuilder,
  words,
} from '../helpers/builder.ts';

serveBuilder();

const byLabel = (label: string): By => By.css(`[aria-label="${label}"]`);
const pick = async (name: string): Promise<void> => {
  const box = await ready(By.id('from-entries'));
  await box.sendKeys(name);
  await ready(By.xpath(`//*[@role="option"][starts-with(normalize-space(), "${name}")]`));
  await box.sendKeys(Key.ENTER);
  await ready(byLabel(`Not ${name}`));
};

test('conditions are found from entries that are to stand in a listing', async () => {
  await open('/build/listings/all-varieties');
  await clickOn(By.xpath('//summary[.="Conditions from entries"]'));
  for (const name of ['Slate Roof', 'Purple-podded Wren']) await pick(name);
  await press('Find conditions');
  await see('Lets these in and ');
  await expectAccessible();
  const others = /Lets these in and (?:(\d+) others?|nobody else)/.exec(await words())!;
  await press('Use them as conditions');
  await see(`In (${2 + Number(others[1] ?? 0)})`);
});

test('a listing without an address compares with what a page’s entry has, and is seen on one', async () => {
  await open('/build/listings/latest-notices');
  await chooseAt(byLabel('Add a condition'), 'title');
  await chooseAt(byLabel('Operator'), 'is');
  await chooseAt(byLabel('Compared with'), 'the page’s title');
  await see('As on the page of');
  await chooseAt(byLabel('Add an order'), 'date shown');
  await expectAccessible();
  expect(await words()).toContain('the page’s title');
});
