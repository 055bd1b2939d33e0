import { By, Key } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  browser,
  clickOn,
  expectAccessible,
  open,
  press,
  publicPage,
  see,
  serveBuilder,
  server,
  write,
  writeAt,
} from '../helpers/builder.ts';

serveBuilder();

test('a starter is made of an entry, changed, begun from, and taken away and back', async () => {
  await open('/build/content/edda');
  await clickOn(By.linkText('Its fields'));
  await clickOn(By.linkText('Back to the entry'));
  await press('Make a starter');
  await see('“Edda Marsh” is a starter of Grower now');
  await press('Open it');
  await see('never public');
  await writeAt(By.xpath('//label[contains(., "Name of the starter")]//input'), 'Somebody new');
  await write('field-name', Key.BACK_SPACE);
  await press('Save');
  await see('Saved. It is never public');
  await expectAccessible();
  await clickOn(By.linkText('New Grower from it'));
  await see('Begun from “Somebody new”');
  await see('Marrowdale');
  await open('/build/content?type=grower');
  await press('New …');
  await see('Blank Grower');
  await clickOn(By.xpath('//*[@role="menuitem"][contains(., "Somebody new")]'));
  await see('Begun from “Somebody new”');
  await open('/build/types/grower');
  await clickOn(By.xpath('//button[starts-with(normalize-space(), "Starters")]'));
  await expectAccessible();
  await clickOn(By.linkText('Somebody new'));
  await press('Delete');
  await see('The starter “Somebody new” is deleted.');
  await press('Undo');
  await see('The starter “Somebody new” is back.');
});

test('an entry is deleted, found among the deleted, brought back, and purged by its name', async () => {
  await open('/build/content/edda');
  await press('Timing');
  await press('Delete …');
  await press('Delete now');
  await see('“Edda Marsh” is deleted');
  await open('/build/content?state=deleted');
  await clickOn(By.linkText('Edda Marsh'));
  await see('It is public nowhere since');
  await expectAccessible();
  await press('Bring it back');
  await see('Live since');
  await press('Timing');
  await press('Purge …');
  await see('1 version is lost');
  await expectAccessible();
  const purge = await browser.findElement(By.xpath('//button[.="Purge for good"]'));
  expect(await purge.isEnabled()).toBe(false);
  await writeAt(By.css('[role="dialog"] input'), 'Edda Marsh');
  await press('Purge for good');
  await see('its addresses answer 410');
  expect((await fetch(`${server.url}/growers/edda-marsh`)).status).toBe(410);
  expect(await publicPage('/growers')).not.toContain('Edda Marsh');
});
