import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  WAIT,
  browser,
  clickOn,
  expectAccessible,
  open,
  press,
  pressStarting,
  see,
  server,
  serveBuilder,
  writeAt,
} from '../helpers/builder.ts';
import { temporaryFolder } from '../helpers/folder.ts';

serveBuilder();

const answer = (path: string): Promise<Response> =>
  fetch(`${server.url}${path}`, { redirect: 'manual' });
const field = (label: string): By =>
  By.xpath(`//label[starts-with(normalize-space(), "${label}")]/input`);
const tab = (name: string): Promise<void> =>
  clickOn(By.xpath(`//*[@role="tab"][starts-with(., "${name}")]`));

test('what is asked for in vain is led to the nearest address, on the bench first, then for visitors', async () => {
  expect((await answer('/varieties/peas/fen-lantrn')).status).toBe(404);
  await open('/build/addresses');
  await tab('Asked for in vain');
  await see('/varieties/peas/fen-lantern');
  await expectAccessible();
  await clickOn(By.xpath('//button[contains(., "→ /varieties/peas/fen-lantern")]'));
  await press('Set redirect');
  await see('On the bench: redirect /varieties/peas/fen-lantrn added');
  expect((await answer('/varieties/peas/fen-lantrn')).status).toBe(404);
  await open('/build/bench');
  await pressStarting('Release 1 line now');
  await press('Release now');
  await browser.wait(async () => (await answer('/varieties/peas/fen-lantrn')).status === 308, WAIT);
  await open('/build/addresses?tab=redirects');
  await see('1 time');
});

test('a redirect that starts where a page stands is refused with the reason', async () => {
  await open('/build/addresses?tab=redirects');
  await writeAt(field('From'), '/growers');
  await writeAt(field('Leads to'), '/varieties');
  await press('Set redirect');
  await see('A listing stands at /growers.');
});

test('redirects come in as CSV after it was said what each line does', async () => {
  const file = join(temporaryFolder(), 'redirects.csv');
  writeFileSync(file, 'from,to,status,below\n/shop,/varieties,301,yes\n/growers,/varieties,,\n');
  await open('/build/addresses?tab=redirects');
  await see('Bring in CSV');
  await (await browser.findElement(By.css('input[type=file]'))).sendKeys(file);
  await see('1 new, 0 changed, 0 as they are, 1 refused. Nothing is changed so far.');
  await expectAccessible();
  await press('Put 1 redirect on the bench');
  await see('On the bench: redirect /shop added');
  await see('/shop and all below');
});

test('the tree of paths opens branch by branch; a path that is pressed is tried', async () => {
  await open('/build/addresses?tab=tree');
  await clickOn(By.css('[aria-label="Below /about-the-library"]'));
  await clickOn(By.xpath('//button[.="/open-day"]'));
  await see('stands here');
  await see('Linked from');
  await expectAccessible();
});

test('an entry gets an address by hand on its own screen, and loses it again', async () => {
  await open('/build/content/fen-lantern');
  await tab('Address');
  await writeAt(field('Address'), '/our-lantern');
  await press('Set address');
  await see('/our-lantern is its address from');
  expect((await answer('/our-lantern')).status).toBe(200);
  await expectAccessible();
  await press('End it now');
  await see('/our-lantern is not set by hand any more.');
  await browser.wait(async () => (await answer('/our-lantern')).status === 308, WAIT);
});
