import { By } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
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
  await see('None so far.');
  await writeInto('Tag of the new language', 'nothing at all');
  await press('Add it');
  await see('is not a language tag');
  await writeInto('Tag of the new language', 'de');
  await press('Add it');
  await press('Deutsch');
  await see('Entries that say nothing in it are shown in English');
  const caption = (words: string): string =>
    `//table[caption[normalize-space()="${words}"]]//input`;
  await writeAt(By.xpath(`${caption('Site')}[@aria-label="Name in Deutsch"]`), 'Saatgut');
  await writeAt(
    By.xpath(`${caption('Type: Variety')}[@aria-label="Address in Deutsch"]`),
    '/sorten/{title}',
  );
  await expectAccessible();
  await press('Keep on the bench');
  await see('2 of ');
});

test('what is said in it is public once it is released, and an entry once it is published', async () => {
  await open('/build/bench');
  await pressStarting('Release 2 lines now');
  await press('Release now');
  await see('Released');
  expect(await publicPage('/de/sorten/chapel-runner')).toContain('<html lang="en-IE">');
  await open('/build/content/chapel-runner?language=de');
  await see('not yet written');
  await write('field-title', 'Kapellenläufer');
  await inPreview('Kapellenläufer');
  await expectAccessible();
  await press('Save');
  await see('Not public until it is published.');
  await press('Publish now');
  await see('Live at /de/sorten/kapellenlaeufer');
  await see('English (Ireland) · live');
  const page = await publicPage('/de/sorten/kapellenlaeufer');
  expect(page).toContain('<html lang="de">');
  expect(page).toContain('hreflang="en-IE"');
  expect(await publicPage('/varieties/beans/chapel-runner')).toContain('Chapel Runner');
});
