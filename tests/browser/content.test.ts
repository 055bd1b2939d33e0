import { By, Key, until } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  browser,
  chooseStarting,
  clickOn,
  expectAccessible,
  open,
  press,
  pressStarting,
  ready,
  see,
  serveBuilder,
  words,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

const labelled = (label: string) => ready(By.css(`[aria-label="${label}"]`));

test('entries are found by their words and by conditions, and the filter is kept', async () => {
  await open('/build/content');
  await see('125 entries');
  await writeInto('Search names and texts', 'pods rattle');
  await see('4 entries');
  await see('when pods rattle');
  await writeInto('Search names and texts', Key.BACK_SPACE);
  await see('125 entries');
  await chooseStarting('Type', 'Varieties');
  await see('61 entries');
  await chooseStarting('Add a condition', 'family');
  await chooseStarting('Operator', 'is');
  await chooseStarting('Value', 'Legumes (17)');
  await see('17 entries');
  await press('Keep this filter');
  await (await ready(By.css('[role="dialog"] input'))).sendKeys('Beans and peas', Key.ENTER);
  await see('Forget it');
  await chooseStarting('Type', 'All types');
  await chooseStarting('Kept filters', 'Beans and peas');
  await see('17 entries');
  await chooseStarting('Type', 'Growers');
  await chooseStarting('State', 'live');
  await browser.wait(until.urlContains('state=live'));
  expect(await browser.getCurrentUrl()).toContain('type=grower');
  await expectAccessible();
});

test('some are published together, each that cannot be is told, and it is taken back', async () => {
  await open('/build/content?type=variety&sort=@name');
  for (const name of ['Cartwheel', 'Ballast Carrot'])
    await (await labelled(`Choose ${name}`)).sendKeys(Key.SPACE);
  await see('2 entries chosen');
  await pressStarting('Change them');
  await clickOn(By.xpath('//*[@role="menuitem"][starts-with(., "Publish")]'));
  await see('1 entry would change.');
  await see('In 1 there is nothing to change.');
  await expectAccessible();
  await pressStarting('Publish 1 entry now (today ');
  await see('1 entry published, or planned to be; 1 was so already.');
  await press('Undo');
  await see('1 entry is as before.');
});

test('a value is changed where it stands in the table, by key, and taken back', async () => {
  await open('/build/content?type=variety&search=lantern');
  const cell = await ready(By.css('[aria-label^="Packets in stock of Lantern Pea: 25"]'));
  await cell.sendKeys(Key.ENTER);
  const box = await ready(By.css('.cell-control input'));
  await box.sendKeys(Key.chord(Key.CONTROL, 'a'), '26', Key.ENTER);
  await see('Packets in stock of “Lantern Pea” is saved');
  await see('live with newer draft');
  await press('Undo');
  await see('1 entry is as before.');
  await ready(By.css('[aria-label^="Packets in stock of Lantern Pea: 25"]'));
});

test('columns are chosen, and stay so', async () => {
  await open('/build/content?type=variety');
  await press('Columns …');
  await (await ready(By.xpath('//label[contains(., "Difficulty")]/input'))).sendKeys(Key.SPACE);
  await ready(By.xpath('//th[normalize-space()="Difficulty"]'));
  await open('/build/content?type=variety');
  await ready(By.xpath('//th[normalize-space()="Difficulty"]'));
  expect(await words()).toContain('Packets in stock');
});
