import { cpSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  browser,
  clickOn,
  expectAccessible,
  inAnotherBrowser,
  inPreview,
  open,
  press,
  pressStarting,
  publicPage,
  ready,
  see,
  serveBuilder,
  WAIT,
  words,
  write,
  writeAt,
  writeInto,
} from '../helpers/builder.ts';

/** The demo with a type of parts, and forms of texts that let in everything and few things. */
function siteWithParts(): string {
  const folder = mkdtempSync(join(tmpdir(), 'bontel-parts-'));
  cpSync('demo/site', folder, { recursive: true });
  const put = (file: string, value: unknown): void =>
    writeFileSync(join(folder, file), JSON.stringify(value));
  mkdirSync(join(folder, 'text-forms'));
  put('text-forms/plain.json', {
    key: 'plain',
    marks: ['bold', 'link'],
    blocks: ['bulletList', 'heading'],
    levels: [2],
    parts: [],
  });
  put('text-forms/whole.json', { key: 'whole' });
  const page = readFileSync(join(folder, 'types/page.yaml'), 'utf8');
  const formed = page.replace('kind: richtext', 'kind: richtext\n    form: whole');
  writeFileSync(join(folder, 'types/page.yaml'), formed);
  put('types/advice.json', {
    key: 'advice',
    description: 'Advice within a text.',
    fields: [
      { key: 'title', kind: 'text', required: true },
      { key: 'words', kind: 'richtext', form: 'plain' },
    ],
  });
  return folder;
}

serveBuilder({ folder: siteWithParts() });

/** Does something by key alone, from where the focus is. */
const keys = (...all: string[]): Promise<void> =>
  browser
    .actions()
    .sendKeys(...all)
    .perform();

/** Goes to a button of the toolbar by keys alone, from the text it is of, and presses it. */
async function byToolbar(label: string): Promise<void> {
  await browser.actions().keyDown(Key.ALT).sendKeys(Key.F10).keyUp(Key.ALT).perform();
  for (let i = 0; i < 30; i++) {
    const at = (await browser.executeScript(
      'return document.activeElement?.textContent ?? ""',
    )) as string;
    if (at === label) return keys(Key.ENTER);
    await keys(Key.ARROW_RIGHT);
  }
  throw new Error(`There is no button "${label}" in the toolbar.`);
}

/** Pastes HTML, as a browser would that got it from another program. */
const paste = (selector: string, html: string): Promise<unknown> =>
  browser.executeScript(
    `const data = new DataTransfer();
     data.setData('text/html', arguments[1]);
     const event = { clipboardData: data, bubbles: true, cancelable: true };
     document.querySelector(arguments[0]).dispatchEvent(new ClipboardEvent('paste', event));`,
    selector,
    html,
  );

const WORD = `<html xmlns:o="urn:schemas-microsoft-com:office:office"><head><style>p{color:red}</style></head>
<body><!--StartFragment--><h2>Sowing<o:p></o:p></h2>
<p class=MsoNormal>In <b style='mso-bidi-font-weight:normal'>May</b>, <i>not</i> before.<o:p></o:p></p>
<p class=MsoListParagraphCxSpFirst style='text-indent:-18.0pt;mso-list:l0 level1 lfo1'><span style='mso-list:Ignore'>·<span style='font:7.0pt'>&nbsp;&nbsp;</span></span>Beans</p>
<p class=MsoListParagraphCxSpLast style='mso-list:l0 level2 lfo1'><span style='mso-list:Ignore'>o</span>Runner beans</p>
<table><tr><td><p>Peas</p></td></tr></table><img src="file:///c:/x.png" alt="A drill">
<!--EndFragment--></body></html>`;

test('an article with a table, a picture and a part is written by key alone', async () => {
  await open('/build/content/new/page');
  await write('field-title', 'By key');
  await ready(By.xpath('//*[@role="toolbar"]//button[.="Bold"]'));
  await browser.executeScript('document.querySelector("#field-body").focus()');
  await keys('First ');
  await byToolbar('Bold');
  await keys('words', Key.ENTER);
  await byToolbar('Table');
  await keys('Sort', Key.TAB, 'Weeks');
  await keys(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_DOWN);
  await byToolbar('Picture');
  await keys('kettle');
  await ready(By.css('[title="copper-kettle.webp"]'));
  await keys(Key.TAB, Key.ENTER);
  await keys(Key.ENTER);
  await byToolbar('Part …');
  await keys(Key.ARROW_DOWN, Key.ENTER);
  await ready(By.css('.rich-part input'));
  await browser.wait(
    () => browser.executeScript('return document.activeElement?.closest(".rich-part") !== null'),
    10_000,
  );
  await keys('Soak first', Key.TAB);
  await inPreview('Soak first');
  await expectAccessible();
  await press('Save');
  await pressStarting('Publish now');
  await see('Live at');
  const page = await publicPage('/by-key');
  for (const part of ['<strong>words</strong>', '<th scope="col">Sort</th>', '<h3>Soak first</h3>'])
    expect(page).toContain(part);
  expect(page).toMatch(/<img src="\/media\/[0-9a-f]{64}\//);
});

test('what is pasted keeps what its text lets in; the rest is said, shown and taken back', async () => {
  await open('/build/content/about');
  await clickOn(By.xpath('//*[@role="toolbar"]//button[starts-with(., "Part")]'));
  await clickOn(By.xpath('//*[@role="menuitem"][contains(., "Advice")]'));
  await writeAt(By.css('.rich-part input'), 'Pasted');
  const words = '.rich-part .rich [contenteditable]';
  await browser.wait(async () => (await browser.findElements(By.css(words))).length > 0, WAIT);
  await paste(words, WORD);
  await see('This text holds no Italic, Table, Picture of another site');
  const html = (await browser.executeScript(
    `return document.querySelector(arguments[0]).innerHTML`,
    words,
  )) as string;
  expect(html).toContain('<h2>Sowing</h2>');
  expect(html).toMatch(/<strong>May<\/strong>, not before/);
  expect(html).toMatch(/<ul><li><p>Beans<\/p><ul><li><p>Runner beans/);
  expect(html).toContain('Peas');
  expect(html).not.toMatch(/Mso|o:p|color:red|·/);
  await press('Show what was taken out');
  const shown = await ready(By.css('[aria-label^="What was taken out"]'));
  expect(await shown.getAttribute('value')).toContain('A drill');
  await expectAccessible();
  await press('All right');
  await paste(words, '<p data-pm-slice="1 1 []">Of <em>another</em> text</p>');
  await see('This text holds no Italic');
  await press('Undo the pasting');
  await browser.wait(
    async () => !(await browser.findElement(By.css(words)).getText()).includes('another'),
    10_000,
  );
});

test('a text as Markdown is taken over whole, or refused with its line', async () => {
  await open('/build/content/about');
  await press('As Markdown');
  const source = By.css('[aria-label="Body as Markdown"]');
  await browser.wait(
    async () => ((await (await ready(source)).getAttribute('value')) ?? '').includes('Marrowdale'),
    10_000,
  );
  await writeAt(source, 'Ask [Edda](entry:edda).\n\n[x](javascript:y)');
  await press('Take it over');
  await see('At line 3');
  await expectAccessible();
  await writeAt(source, 'Ask [Edda](entry:edda).\n\n:::part[advice]{title="Told"}\n:::\n');
  await press('Take it over');
  await see('Ask Edda.');
  await press('Save');
  await pressStarting('Publish now');
  await see('Live at');
  const page = await publicPage('/about-the-library');
  expect(page).toContain('<a href="/growers/edda-marsh">Edda</a>');
  expect(page).toContain('<h3>Told</h3>');
});

test('an editor who is let in puts into a text what editors may, and finds the design closed', async () => {
  await open('/build/settings/texts');
  await press('Whole');
  await clickOn(By.xpath('//select/option[starts-with(., "Of this what “Plain”")]'));
  await press('Release this now …');
  await press('Release now');
  await see('Released');
  await open('/build/settings/people');
  await writeInto('Name of whoever is let in', 'Mara Quist');
  await press('Let them in');
  await see('Give this link to Mara Quist');
  await expectAccessible();
  const link = await (await ready(By.css('[aria-label^="Sign-in link"]'))).getAttribute('value');
  await inAnotherBrowser(async () => {
    await open('/build/content/about');
    const bar = await ready(By.css('[role="toolbar"]'));
    expect(await bar.getText()).not.toMatch(/Italic|Table|Part/);
    await paste('#field-body', WORD);
    await see('This text holds no Italic, Table, Picture of another site');
    await press('Save');
    await see('Saved');
    await open('/build/bench');
    await see('Mine (1)');
    expect(await words()).not.toMatch(/Design \(|Undo my last edit/);
    await press('Release 1 line now …');
    await press('Release now');
    await see('Released');
    await open('/build/types/page');
    await see('Builders of the site change it');
    expect(await words()).not.toContain('Release this now');
    await expectAccessible();
  }, link ?? '');
  expect(await publicPage('/about-the-library')).toContain('Runner beans');
  await clickOn(By.xpath('//li[contains(., "Mara Quist")]//button[.="Remove …"]'));
  await press('Remove');
  await see('is let in no more');
});
