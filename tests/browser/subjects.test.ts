import { By, Key } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  browser,
  clickOn,
  expectAccessible,
  open,
  press,
  publicPage,
  ready,
  see,
  serveBuilder,
  WAIT,
  write,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

const names = (): Promise<string[]> =>
  browser.executeScript(
    `return [...document.querySelectorAll('[role=table] a')].map((a) => a.textContent)`,
  );

test('another word in addresses is tried, saved, and taken back', async () => {
  await open('/build/settings/subjects/families');
  await clickOn(By.linkText('Beans'));
  await write('subject-slug', 'All beans');
  await see('is no word for addresses');
  await write('subject-slug', 'pods');
  await see('/varieties/beans/chapel-runner → /varieties/pods/chapel-runner');
  await expectAccessible();
  await press('Save now');
  await see('7 addresses moved');
  expect(await publicPage('/varieties/pods/chapel-runner')).toContain('Chapel Runner');
  await press('Undo');
  await see('was “pods”');
  expect((await fetch(await here('/varieties/pods/chapel-runner'))).url).toContain('/beans/');
});

const here = async (path: string): Promise<string> =>
  new URL(path, await browser.getCurrentUrl()).href;

test('two tags become one, and one is deleted and brought back', async () => {
  await open('/build/settings/subjects/traits');
  for (const name of ['Dwarf', 'For pots']) await clickOn(By.css(`[aria-label="Choose ${name}"]`));
  await press('Merge …');
  await see('Dwarf counts as For pots from now on');
  await see('No address moves.');
  await expectAccessible();
  await press('Merge into For pots');
  await see('Dwarf merged into For pots.');
  await browser.wait(async () => !(await names()).includes('Dwarf'), WAIT);
  await clickOn(By.css('[aria-label="Choose Hardy"]'));
  await press('Delete …');
  await see('16 entries on the site have it');
  await see('No address moves.');
  await press('Delete now');
  await see('Hardy deleted.');
  await browser.wait(async () => !(await names()).includes('Hardy'), WAIT);
  await clickOn(By.css('[aria-label="Undo: Hardy deleted"]'));
  await see('Hardy added.');
  await browser.wait(async () => (await names()).includes('Hardy'), WAIT);
});

test('a tree is arranged by keys, and names that look alike are found', async () => {
  await open('/build/settings/subjects/families');
  expect((await names()).slice(0, 3)).toEqual(['Legumes', 'Beans', 'Peas']);
  const peas = await ready(By.linkText('Peas'));
  await peas.sendKeys(Key.chord(Key.ALT, Key.ARROW_UP));
  await browser.wait(async () => (await names())[1] === 'Peas', WAIT);
  await (await ready(By.linkText('Peas'))).sendKeys(Key.chord(Key.ALT, Key.ARROW_LEFT));
  await see('Peas moved to the top.');
  await writeInto('Find a subject', 'bean');
  await browser.wait(async () => (await names()).length === 1, WAIT);
  await write('new-subjects', 'Beanz');
  await see('“Beanz” is near “Beans”');
  await press('Add');
  await see('1 subject added.');
  await press('Find those that look alike');
  await see('Beans (7 entries) and Beanz (0 entries)');
  await expectAccessible();
});
