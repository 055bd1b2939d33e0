import { By, Key } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  browser,
  clickOn,
  expectAccessible,
  inPreview,
  open,
  press,
  pressStarting,
  publicPage,
  ready,
  see,
  serveBuilder,
  words,
  write,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder({ folder: null });

const OUTLINE = [
  'Boat: name, built (number), class (four / eight)',
  'Person: name, photo',
  'Race: title, day, place, boats, winner (→ Boot), traits (tags), report (rich text)',
  'Club (single): phone, motto',
];

/** Does something with the keyboard alone, from where the focus is. */
const type = (...keys: string[]): Promise<void> =>
  browser
    .actions()
    .sendKeys(...keys)
    .perform();

test('a site is made from nothing: named, outlined, released, written and seen', async () => {
  await write('start-name', 'Rivermouth Rowing Club');
  await expectAccessible();
  await write('start-zone', 'Nowhere');
  await press('Start this site');
  await see('is not an IANA time zone');
  await write('start-zone', 'Europe/Dublin');
  await press('Start this site');
  await see('First steps');
  await open('/build/types');
  await see('Write a type a line');
  await write('outline', OUTLINE.join('\n'));
  await see('A type Race, named by title. Its pages stand at /races/{title}.');
  await see('There is no type Boot to lead to.');
  await expectAccessible();
  await press('Make it Boat');
  await see('any number of Boats (by its name)');
  await open('/build');
  await open('/build/types');
  await see('any number of Boats (by its name)'); // what was written is there still
  await pressStarting('Release this now');
  await see('No address moves.');
  await press('Release now');
  await see('Released');
  await open('/build/content/new/race');
  await write('field-title', 'Spring Regatta');
  await write('field-place', 'Lower Weir');
  await write('field-traits', 'Junior');
  await type(Key.ENTER);
  await ready(By.css('[aria-label="Remove Junior"]'));
  await write('field-traits', 'Juniors');
  await type(',');
  await see('Is it');
  await press('a new one: Juniors');
  await expectAccessible();
  await press('Save');
  await pressStarting('Publish now');
  await see('Live at');
  expect(await publicPage('/races/spring-regatta')).toContain('<h1>Spring Regatta</h1>');
  await open('/build');
  await see('✓ done');
});

test('fields are added, set and arranged with the keyboard, and seen at once', async () => {
  await open('/build/types/boat');
  await pressStarting('Fields');
  const name = await ready(By.css('[aria-label="Name of the new field"]'));
  await browser.executeScript('arguments[0].focus()', name);
  await type('Rig', Key.TAB);
  await type('Choice', Key.TAB, Key.ENTER);
  await see('Rig is a choice without options.');
  await expectAccessible();
  await writeInto('Options of Rig', 'Sculling');
  await type(Key.ENTER);
  await inPreview('Sculling');
  const up = await ready(By.css('[aria-label="Move Rig up"]'));
  await browser.executeScript('arguments[0].focus()', up);
  await type(Key.ENTER, Key.ENTER, Key.ENTER, Key.ENTER, Key.ENTER);
  const order = (): Promise<string[]> =>
    browser.executeScript(
      `return [...document.querySelectorAll('ol[aria-label="Fields"] > li')].map((li) =>
        li.querySelector('[aria-expanded]').firstChild.textContent)`,
    );
  await browser.wait(async () => (await order())[0] === 'Rig', 5000);
  await press('Keep on the bench');
  await see('On the bench: Boat: field Rig added');
  // What was kept stays on the screen while it is drawn anew.
  expect(await order()).toEqual(['Rig', 'Name', 'Built', 'Class']);
});

test('a text becomes a choice of the values in use, and is that text again when taken back', async () => {
  await open('/build/types/race');
  await pressStarting('Fields');
  await pressStarting('Place text');
  await write('field-place-kind', 'Choice');
  await see('1 entry holds a value in it; none of them fit as a whole.');
  await see('Spring Regatta');
  await press('Make 1 option of the values in use');
  await see('1 entry holds a value in it; all of them fit.');
  await inPreview('Lower Weir');
  await see('No page changes.');
  await expectAccessible();
  await press('Keep on the bench');
  await see('On the bench: Race: Place holds choice, was text');
  await press('Undo');
  await see('Taken off the bench again.');
});

test('settings of the site’s own are written once, and patterns read them', async () => {
  await open('/build/settings');
  await clickOn(By.linkText('Not written yet: write it'));
  await write('field-phone', '555 0100');
  await press('Save');
  await pressStarting('Publish now');
  await see('Club · live');
  await open('/build/types/race');
  await pressStarting('SEO');
  await write('seo-title', '{title} · {site.club.phone}');
  await pressStarting('Release this now');
  await press('Release now');
  await see('Released');
  expect(await publicPage('/races/spring-regatta')).toContain('Spring Regatta · 555 0100');
  await open('/build/content?type=club');
  await see('There is one Club and no more');
});

test('a field is renamed, tags bring their set along, and a type goes when it has no entries', async () => {
  await open('/build/types/boat');
  await pressStarting('Fields');
  await pressStarting('Built');
  await write('field-built-key', 'launched');
  await press('Rename');
  await see('On the bench: Boat, Built: key launched, was built.');
  await writeInto('Name of the new field', 'Colours');
  await writeInto('Kind of the new field', 'Tags');
  await press('Add field');
  await press('Keep on the bench');
  await see('On the bench: subject set Colours added');
  await press('Make another like it …');
  await writeInto('Name of the new type', 'Launch');
  await press('Make it on the bench');
  await see('/launches/');
  await open('/build/types/race');
  await press('Take this type away …');
  await see('There is 1 entry of it. Delete them first');
  await open('/build/types/person');
  await press('Take this type away …');
  await press('Take it away on the bench');
  await see('Boat'); // back at all types
  await browser.wait(async () => !(await words()).includes('/people/{name}'), 5000);
});

test('what cannot be is said where it stands, and is not kept', async () => {
  await open('/build/types/boat');
  await pressStarting('Names');
  await write('type-label', ' ');
  const label = await ready(By.id('type-label'));
  await label.sendKeys(Key.BACK_SPACE);
  await see('to mend');
  const keep = await ready(By.xpath('//button[normalize-space()="Keep on the bench"]'));
  expect(await keep.isEnabled()).toBe(false);
  await press('Drop changes');
  await pressStarting('Fields');
  await pressStarting('Name text');
  await write('field-name-key', 'entry');
  await press('Rename');
  await see('is a name of the pattern language');
  await press('Take Name away');
  await see('Read elsewhere, and to be changed there');
  await see('Boat: naming field');
  await press('Take it away');
  await see('to mend');
  await pressStarting('Names');
  await see('Boat has no field "name".');
});

test('a listing is made of a type, worded, and leads the menu that pages have by themselves', async () => {
  await open('/build/listings');
  await writeInto('Name of the new listing', 'Coming races');
  await clickOn(By.xpath('//*[@aria-label="What it lists"]/option[.="of Races"]'));
  await expectAccessible();
  await press('Make it');
  await see('On the bench: listing Coming races added');
  await see('In (1)');
  await write('listing-address', '/Races!');
  await see('A listing\'s address is made of "/" and small letters');
  await write('listing-address', '/all-races');
  await write('listing-intro', 'All that {site.name} rows in.');
  await expectAccessible();
  await press('Keep on the bench');
  await see('Nobody else sees it until it is released');
  await open('/build/bench');
  await pressStarting('Release');
  await press('Release now');
  await see('Released ');
  const page = await publicPage('/all-races');
  expect(page).toContain('All that Rivermouth Rowing Club rows in.');
  expect(page).toContain('href="/races/spring-regatta"');
  expect(await publicPage('/races/spring-regatta')).toContain('<a href="/all-races"');
});
