import { By, type WebElement, until } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  WAIT,
  browser,
  chooseAt,
  clickOn,
  expectAccessible,
  inFrame,
  open,
  press,
  publicPage,
  see,
  server,
  serveBuilder,
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

/** What is on a public page, where no script listens. */
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

test('a visitor narrows a list by two fields, searches it, and goes back, all by its form', async () => {
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
});
