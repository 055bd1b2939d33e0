import { By, Key } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  clickOn,
  expectAccessible,
  open,
  press,
  pressStarting,
  publicPage,
  ready,
  see,
  serveBuilder,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

/** The names of what a public page shows of its shelf, in their order. */
const shelf = async (): Promise<string[]> => {
  const [, row = ''] = /class="[^"]*shelf[^"]*"(.*?)<\/section>/s.exec(await publicPage('/')) ?? [];
  return [...row.matchAll(/<h3[^>]*>(?:<a[^>]*>)?([^<]+)/g)].map(([, name]) => name!);
};
const pressLabelled = async (label: string): Promise<void> =>
  clickOn(By.css(`[aria-label="${label}"]`));

test('picks are added to, put in order and timed, and the public page follows at once', async () => {
  await open('/build/listings/picks/shelf');
  expect(await shelf()).toEqual([
    'Purple-podded Wren',
    'Frost Lettuce',
    'Ballast Carrot',
    'Ember Beet',
  ]);
  const up = await ready(By.css('[aria-label="Move Ballast Carrot up"]'));
  await up.sendKeys(Key.ENTER);
  await see('“Ballast Carrot” moved.');
  expect((await shelf()).slice(0, 3)).toEqual([
    'Purple-podded Wren',
    'Ballast Carrot',
    'Frost Lettuce',
  ]);
  await press('Undo');
  await see('“Ballast Carrot” is back at its place.');
  await pressLabelled('Take Purple-podded Wren out');
  await see('“Purple-podded Wren” is not in On the shelf any more.');
  expect((await shelf())[0]).toBe('Frost Lettuce');
  await press('Undo');
  await see('“Purple-podded Wren” is in On the shelf again.');
  expect((await shelf())[0]).toBe('Purple-podded Wren');
  await pressLabelled('When Ember Beet is in');
  await writeInto('Ember Beet leaves at (Europe/Dublin)', 'tomorrow 8:00');
  await press('Set');
  await see('“Ember Beet”: changed when it is in On the shelf.');
  await see(', until ');
  await expectAccessible();
});

test('new picks are made, new entries of a type join them, and an entry can leave and go back', async () => {
  await open('/build/listings');
  await writeInto('Name of the new picks', 'First sown');
  await press('Make them');
  await see('On the bench: picks First sown added.');
  await open('/build/types/notice');
  await pressStarting('Presets');
  await clickOn(By.xpath('//label[contains(.,"First sown")]/input'));
  await see('joins First sown');
  await press('Release this now …');
  await see('picks First sown added (with it, because something here uses it)');
  await press('Release now');
  await see('Released');
  await open('/build/content/new/notice');
  await see('joins First sown when it is saved');
  await (await ready(By.id('field-title'))).sendKeys('A late frost');
  await press('Save');
  await see('Saved as version 1');
  await see('Picks: in 1');
  await clickOn(By.xpath('//summary[starts-with(.,"Picks")]'));
  await pressLabelled('Take it out of First sown');
  await see('Not in it, though new entries of Notice join it');
  await pressLabelled('First sown: as the type has it');
  await see('(as the type has it)');
});
