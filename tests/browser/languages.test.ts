import { By, until } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  WAIT,
  browser,
  chooseAt,
  clickOn,
  expectAccessible,
  inPreview,
  open,
  press,
  pressStarting,
  publicPage,
  see,
  serveBuilder,
  write,
  writeAt,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

test('a language is added, and what the design says in it', async () => {
  await open('/build/settings/languages');
  await see('Deutsch');
  await writeInto('Tag of the new language', 'nothing at all');
  await press('Add it');
  await see('is not a language tag');
  await writeInto('Tag of the new language', 'nl');
  await press('Add it');
  await press('Nederlands');
  await see('Entries that say nothing in it are shown in English');
  const caption = (words: string): string =>
    `//table[caption[normalize-space()="${words}"]]//input`;
  await writeAt(By.xpath(`${caption('Site')}[@aria-label="Name in Nederlands"]`), 'Zaad');
  await writeAt(
    By.xpath(`${caption('Type: Variety')}[@aria-label="Address in Nederlands"]`),
    '/soorten/{title}',
  );
  await expectAccessible();
  await press('Keep on the bench');
  await see('2 of ');
});

test('what is said in it is public once it is released, and an entry once it is published', async () => {
  await open('/build/bench');
  await pressStarting('Release 2 lines now');
  await press('Release now');
  await see('No edits of the design.');
  expect(await publicPage('/nl/soorten/chapel-runner')).toContain('<html lang="en-IE">');
  await open('/build/content/chapel-runner?language=nl');
  await see('not yet written');
  await write('field-title', 'Kapelloper');
  await inPreview('Kapelloper');
  await expectAccessible();
  await press('Save');
  await see('Not public until it is published.');
  await press('Publish now');
  await see('Live at /nl/soorten/kapelloper');
  await see('English (Ireland) · live');
  const page = await publicPage('/nl/soorten/kapelloper');
  expect(page).toContain('<html lang="nl">');
  expect(page).toContain('hreflang="en-IE"');
  expect(await publicPage('/varieties/beans/chapel-runner')).toContain('Chapel Runner');
});

test('a category is called otherwise in a language, and addresses built on it follow', async () => {
  await open('/build/settings/subjects/families?subject=beans');
  await see('Deutsch');
  await write('subject-de-name', 'Stangenbohnen');
  await see('/de/sorten/bohnen/kapellenbohne → /de/sorten/stangenbohnen/kapellenbohne');
  await expectAccessible();
  await press('Save now');
  await see('Beans: other words in Deutsch');
  expect(await publicPage('/de/sorten/huelsenfruechte/stangenbohnen')).toContain(
    '<h1>Stangenbohnen',
  );
  expect(await publicPage('/varieties/legumes/beans')).toContain('<h1>Beans');
});

test('Addresses shows those of a language that is chosen', async () => {
  await open('/build/addresses?search=chapel-runner');
  await see('/varieties/beans/chapel-runner');
  await chooseAt(By.css('select[aria-label="Language"]'), 'In Deutsch');
  await browser.wait(until.urlContains('language=de'), WAIT);
  await open('/build/addresses?language=de&search=kapellenbohne');
  await see('/de/sorten/stangenbohnen/kapellenbohne');
  await expectAccessible();
});

test('from the address of a type it is a press to what a language says in its place', async () => {
  await open('/build/types/variety?tab=address');
  await see('/sorten/{family.slug}/{title}');
  await clickOn(By.linkText('Say it otherwise'));
  await browser.wait(until.urlContains('/settings/languages?open=de'), WAIT);
  await see('Texts of the design');
});

test('what the design gives is seen in a language that is chosen beside the clock, from screen to screen', async () => {
  await open('/build/templates/variety-page');
  await inPreview('Sow from');
  await chooseAt(By.css('select[aria-label="Language"]'), 'Deutsch');
  await inPreview('Aussaat ab');
  await see('now · Deutsch');
  await expectAccessible();
  await clickOn(By.linkText('Listings'));
  await clickOn(By.linkText('All varieties'));
  await see('/de/sorten/moehren/ballastmoehre');
  await chooseAt(By.css('select[aria-label="Language"]'), 'English');
  await see('/varieties/carrots/ballast-carrot');
  await chooseAt(By.css('select[aria-label="Language"]'), 'Deutsch');
  await see('/de/sorten/moehren/ballastmoehre');
  await clickOn(By.linkText('Addresses'));
  await see('in the site’s language now');
});
