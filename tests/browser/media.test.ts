import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, until } from 'selenium-webdriver';
import sharp from 'sharp';
import { beforeAll, expect, test } from 'vitest';
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
  words,
  writeAt,
  WAIT,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

const folder = mkdtempSync(join(tmpdir(), 'bontel-files-'));
const file = (name: string): string => join(folder, name);
const drawn = (background: string) =>
  sharp({ create: { width: 300, height: 200, channels: 3, background } });

beforeAll(async () => {
  await drawn('#a31').png().toFile(file('Harvest basket.png'));
  await drawn('#13a').jpeg().toFile(file('blue.jpg'));
  await drawn('#3a1').webp().toFile(file('green.webp'));
  writeFileSync(file('lies.png'), '<html></html>');
});

/** Chooses files as the dialog of the machine would. */
async function choose(...names: string[]): Promise<void> {
  const input = await browser.wait(
    async () => (await browser.findElements(By.css('input[type=file]')))[0],
    10_000,
  );
  await input!.sendKeys(names.map(file).join('\n'));
}

test('files are added, described with keys alone, and found again', async () => {
  await open('/build/media');
  await ready(By.css('.medium-card'));
  await choose('Harvest basket.png', 'lies.png');
  await see('There as harvest-basket.png');
  await see('no drawing in SVG');
  await press('Clear');
  await clickOn(By.css('.medium-card:has([title="harvest-basket.png"])'));
  await see('Used nowhere');
  await expectAccessible();
  const point = await ready(By.css('[aria-label^="What matters in the picture: 50 %"]'));
  await point.sendKeys(Key.ARROW_LEFT, Key.ARROW_LEFT, Key.ARROW_UP);
  await ready(By.css('[aria-label*="40 % from the left, 45 % from the top"]'));
  await writeAt(By.css('aside textarea'), 'A basket of beans');
  await press('Save');
  await see('Saved what is said of harvest-basket.png');
  await writeInto('Find by name, alternative text, caption or credit', 'basket beans');
  await see('1 file');
});

test('a picture is dropped; where the connection breaks, sending goes on', async () => {
  await open('/build/media');
  await ready(By.css('.medium-card'));
  await browser.executeScript(`
    const real = window.fetch;
    let broken = 0;
    window.fetch = (path, init) =>
      String(path).includes('offset=') && broken++ === 0
        ? Promise.reject(new TypeError('Failed to fetch'))
        : real(path, init);
    const canvas = document.createElement('canvas');
    canvas.toBlob((blob) => {
      const data = new DataTransfer();
      data.items.add(new File([blob], 'Dropped.png', { type: 'image/png' }));
      const target = document.querySelector('.medium-card');
      for (const type of ['dragenter', 'dragover', 'drop'])
        target.dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: data }));
    });
  `);
  await see('There as dropped.png');
});

test('a picture that is dropped into a text is sent, and stands in it', async () => {
  await open('/build/content/frost-lettuce');
  await ready(By.id('field-summary'));
  const text = await browser.wait(until.elementLocated(By.css('.rich [contenteditable]')), WAIT);
  await browser.executeScript(
    `
    const [text] = arguments;
    text.scrollIntoView({ block: 'center' });
    const { left, top, width, height } = text.getBoundingClientRect();
    const canvas = document.createElement('canvas');
    canvas.toBlob((blob) => {
      const dataTransfer = new DataTransfer();
      dataTransfer.items.add(new File([blob], 'In text.png', { type: 'image/png' }));
      const at = { clientX: left + width / 2, clientY: top + height / 2 };
      const init = { ...at, bubbles: true, cancelable: true, dataTransfer };
      for (const type of ['dragenter', 'dragover', 'drop'])
        text.dispatchEvent(new DragEvent(type, init));
    });
  `,
    text,
  );
  await browser.wait(until.elementLocated(By.css('.rich [contenteditable] img')), WAIT);
  await press('Undo changes');
});

test('a file is replaced, taken back, deleted and brought back', async () => {
  await open('/build/media?medium=ballast-carrot.webp');
  await see('Ballast Carrot');
  const replace = await browser.findElement(
    By.xpath('//aside//label[contains(., "Replace")]/input'),
  );
  await replace.sendKeys(file('blue.jpg'));
  await see('Is ballast-carrot.webp now');
  await see('Another file');
  await see('JPEG');
  await press('Take back to this');
  await see('ballast-carrot.webp is as it was then.');
  await see('WEBP');
  await pressStarting('Delete (used');
  await see('ballast-carrot.webp is deleted.');
  await press('Undo');
  await see('ballast-carrot.webp is back.');
});

test('a picture is added on the entry that shows it, described there, and stands on its page', async () => {
  await open('/build/content/frost-lettuce');
  await clickOn(By.id('field-picture'));
  await ready(By.css('.medium-card'));
  await choose('green.webp');
  await see('No alternative text yet');
  await press('Describe');
  await writeAt(By.css('[role=dialog] textarea'), 'Green leaves');
  await clickOn(By.xpath('//*[@role="dialog"]//button[.="Save"]'));
  await browser.wait(async () => !(await words()).includes('No alternative text yet'), WAIT);
  await press('Save');
  await pressStarting('Publish');
  await see('Live at');
  const path = await browser.findElement(By.xpath('//a[.="Public page"]')).getAttribute('href');
  const page = await publicPage(new URL(path!).pathname);
  expect(page).toMatch(
    /srcset="\/media\/[0-9a-f]{64}\/160 160w[^"]*" sizes="[^"]+" alt="Green leaves"/,
  );
});
