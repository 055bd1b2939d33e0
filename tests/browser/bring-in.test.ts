import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import JSZip from 'jszip';
import { By } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  browser,
  clickOn,
  expectAccessible,
  open,
  press,
  pressStarting,
  publicPage,
  ready,
  see,
  serveBuilder,
} from '../helpers/builder.ts';

serveBuilder();

const folder = mkdtempSync(join(tmpdir(), 'bontel-elsewhere-'));

async function zip(files: Record<string, string>): Promise<string> {
  const archive = new JSZip();
  for (const [name, text] of Object.entries(files)) archive.file(name, text);
  const path = join(folder, 'journal.zip');
  writeFileSync(path, await archive.generateAsync({ type: 'nodebuffer' }));
  return path;
}

async function choose(path: string): Promise<void> {
  await ready(By.xpath('//label[.="Choose files"]')); // the input is not seen itself
  const input = await browser.wait(
    async () => (await browser.findElements(By.css('input[type=file]')))[1],
    10_000,
  );
  await input!.sendKeys(path);
}

const pick = async (label: string, option: string): Promise<void> => {
  const select = await ready(By.css(`[aria-label="${label}"]`));
  await select.findElement(By.xpath(`.//option[.="${option}"]`)).click();
};

test('a journal of another tool is mapped, tried, brought in, and brought again', async () => {
  const first = `---\ntitle: The first frost\nmood: cold\nrating: 4\n---\nIt came **early**. See [on](second.md).\n`;
  const path = await zip({
    'journal/first.md': first,
    'journal/second.md': '# Second\n\nLater.\n',
    'journal/broken.md': '---\ntitle: x\n',
  });
  await open('/build/content');
  await clickOn(By.xpath('//a[.="Bring in"]'));
  await see('Pictures beside them come along');
  await choose(path);
  await see('2 records');
  await see('broken.md:1: The front matter does not end');
  await pick('Of which type', 'Pages');
  await pick('What rating becomes', 'A new field, a number');
  await pick('Whether they go live', 'publish all but drafts');
  await expectAccessible();
  await press('Try it');
  await see('not there any more');
  expect(await publicPage('/first')).not.toContain('The first frost');
  await press('Bring it in');
  await see('Brought in.');
  const page = await publicPage('/first');
  expect(page).toContain('<strong>early</strong>');
  expect(page).toContain('<a href="/second">on</a>');
  await open('/build/types/page');
  await pressStarting('Fields');
  await see('Rating');

  await zip({
    'journal/first.md': first.replace('early', 'late'),
    'journal/third.md': '# Third\n',
  });
  await open('/build/content/bring-in');
  await clickOn(By.css('[aria-label="Bring in journal.zip again"]'));
  await choose(path);
  await pick('What becomes of entries whose records are gone', 'goes off the site');
  await press('Try it');
  await see('1 entry would go off the site.');
  await press('Bring it in');
  await see('1 entry went off the site.');
  expect(await publicPage('/first')).toContain('<strong>late</strong>');
  expect(await publicPage('/third')).toContain('Third');
  await press('Undo');
  await see('3 entries are as before.');
  expect(await publicPage('/first')).toContain('<strong>early</strong>');
  expect(await publicPage('/second')).toContain('Later.');
  expect(await publicPage('/third')).not.toContain('Third');
});

test('what “1.234” means is asked where nothing says it, and numbers come in as answered', async () => {
  const path = join(folder, 'rows.csv');
  writeFileSync(path, 'name;metres\nShort row;1.234\nLong row;2.000\n');
  await open('/build/content/bring-in');
  await choose(path);
  await see('2 records');
  await pick('Of which type', 'Growers');
  await pick('What metres becomes', 'A new field, a number');
  await pick('How numbers are read', 'more than a thousand');
  await expectAccessible();
  await press('Try it');
  await press('Bring it in');
  await see('Brought in.');
  await open('/build/content?q=Short');
  await clickOn(By.linkText('Short row'));
  const metres = await ready(By.xpath('//label[starts-with(., "Metres")]/following::input[1]'));
  expect(await metres.getAttribute('value')).toBe('1234');
});
