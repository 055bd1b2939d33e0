import { By, Key, type WebElement, until } from 'selenium-webdriver';
import type { Driver as ChromeDriver } from 'selenium-webdriver/chrome.js';
import { expect, test } from 'vitest';
import {
  WAIT,
  browser,
  chooseAt,
  clickOn,
  expectAccessible,
  inFrame,
  inPreview,
  open,
  press,
  publicPage,
  resize,
  see,
  server,
  serveBuilder,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

/** What is on a public page, whatever listens there. */
const there = (by: By): Promise<WebElement> => browser.wait(until.elementLocated(by), WAIT);
const onPage = async (by: By): Promise<void> => (await there(by)).click();
const cards = async (): Promise<string[]> => {
  const found = await browser.findElements(By.css('.listing .cards h3'));
  return Promise.all(found.map((heading) => heading.getText()));
};

test('a listing gets a second type and what visitors do with it, which they can once it is released', async () => {
  await open('/build/listings/growers');
  await chooseAt(By.css('[aria-label="Add a type"]'), 'guides');
  await see('In (');
  await clickOn(By.id('narrow-village'));
  await clickOn(By.id('search-name'));
  await press('Add an order');
  await writeInto('What visitors read', 'Latest first');
  await expectAccessible();
  await clickOn(By.xpath('//*[@role="tab"][.="Page"]'));
  const form = `return document.querySelector('form.visitor select')?.textContent ?? ''`;
  await browser.wait(async () => String(await inFrame(form)).includes('Latest first'), WAIT);
  await press('Release this now …');
  await press('Release now');
  await see('Released ');
  expect(await publicPage('/growers')).toContain('Latest first');
});

/** Asks the browser itself for something (Chrome DevTools Protocol). */
const devTools = (command: string, how: object = {}): Promise<unknown> =>
  (browser as unknown as ChromeDriver).sendDevToolsCommand(command, how);
const withoutScript = async (act: () => Promise<void>): Promise<void> => {
  await devTools('Network.enable');
  await devTools('Network.setBlockedURLs', { urls: ['*/style/page.js'] });
  await act();
  await devTools('Network.setBlockedURLs', { urls: [] });
};

test('a visitor narrows a list by two fields, searches it, and goes back, without a script', () =>
  withoutScript(byItsForm));

async function byItsForm(): Promise<void> {
  await browser.get(`${server.url}/varieties`);
  await onPage(By.xpath('//details/summary[.="Family"]'));
  await onPage(By.css('input[name="family[]"][value="legumes"]'));
  await onPage(By.xpath('//details/summary[.="Difficulty"]'));
  await onPage(By.css('input[name="difficulty[]"][value="easy"]'));
  await onPage(By.css('form.visitor button'));
  await there(By.linkText('Without Legumes'));
  const narrowed = await cards();
  expect(narrowed.length).toBeGreaterThan(1);
  expect(await browser.getCurrentUrl()).toContain('=legumes');
  await expectAccessible();
  await onPage(By.linkText('Without Legumes'));
  await browser.wait(async () => (await cards()).length > narrowed.length, WAIT);
  const [name] = await cards();
  const [word] = name!.split(' ');
  await (await there(By.css('form.visitor input[type="search"]'))).sendKeys(word!.slice(0, 5));
  await onPage(By.css('form.visitor button'));
  await there(By.xpath(`//mark[.="${word}"]`));
  expect((await cards())[0]).toBe(name);
}

test('with a script the list follows what a visitor ticks and types, who stays where they are', async () => {
  await browser.get(`${server.url}/varieties`);
  const all = await cards();
  await onPage(By.xpath('//details/summary[.="Family"]'));
  const legumes = By.css('input[name="family[]"][value="legumes"]');
  await (await there(legumes)).sendKeys(Key.SPACE);
  await there(By.linkText('Without Legumes'));
  expect(await cards()).not.toEqual(all);
  expect(await browser.getCurrentUrl()).toContain('=legumes');
  const at = await browser.switchTo().activeElement();
  expect(await at.getAttribute('value')).toBe('legumes');
  expect(await (await there(legumes)).isSelected()).toBe(true);
  const [name] = await cards();
  const word = name!.split(' ')[0]!;
  await (await there(By.css('form.visitor input[type="search"]'))).sendKeys(word);
  await there(By.xpath(`//mark[.="${word}"]`));
  expect(await (await browser.switchTo().activeElement()).getAttribute('value')).toBe(word);
  const told = await there(By.css('body > [role="status"]'));
  const found = await (await there(By.css('form.visitor .found'))).getText();
  expect(found).toContain(
    String(await browser.executeScript('return arguments[0].textContent', told)),
  );
  await expectAccessible();
});

test('a listing is narrowed as visitors do where it is made, and where its page is edited', async () => {
  const narrow = (): Promise<unknown> =>
    inFrame(`document.querySelector('input[value="legumes"]').checked = true;
      document.querySelector('form.visitor button').click()`);
  await open('/build/listings/all-varieties');
  await clickOn(By.xpath('//*[@role="tab"][.="Page"]'));
  await inPreview('Difficulty');
  await narrow();
  await see('Page at /varieties?');
  await inPreview('Without Legumes');
  await open('/build/view/varieties');
  await inPreview('Difficulty');
  await narrow();
  await inPreview('Without Legumes');
  const written = await browser.findElement(By.css('[aria-label="Path of the page"]'));
  expect(await written.getAttribute('value')).toContain('=legumes');
});

test('a row has buttons where the style can make none', async () => {
  const source = `const styleOf = getComputedStyle;
    getComputedStyle = (element, part) => part ? { content: '' } : styleOf(element);`;
  await devTools('Page.addScriptToEvaluateOnNewDocument', { source });
  await resize(360);
  await browser.get(`${server.url}/`);
  const further = await there(By.css('button.row-button[aria-label="Further"]'));
  const back = await there(By.css('button.row-button[aria-label="Back"]'));
  expect(await back.isEnabled()).toBe(false);
  await browser.executeScript('arguments[0].scrollIntoView({ block: "center" })', further);
  await further.click();
  await browser.wait(until.elementIsEnabled(back), WAIT);
  await back.click();
  await browser.wait(until.elementIsDisabled(back), WAIT);
  await resize(1280);
});
