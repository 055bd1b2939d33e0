import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/webdriverjs';
import { By, Key, type WebDriver, type WebElement } from 'selenium-webdriver';
import { afterAll, beforeAll, expect } from 'vitest';
import { startBrowser } from './browser.ts';
import { bontel, type RunningServer, startServer } from './run.ts';

/** How long a test waits for what it is to see, ms. */
export const WAIT = 30_000;

export let server: RunningServer;
export let browser: WebDriver;
/** The data folder that is served. */
let served: string;

/**
 * Serves the demo, or a site of nothing, with the builder to a browser of its own, for the tests of
 * one file. Returns the data folder.
 */
export function serveBuilder({
  signedIn = true,
  folder = 'demo/site',
}: { signedIn?: boolean; folder?: string | null } = {}): string {
  const data = mkdtempSync(join(tmpdir(), 'bontel-browser-'));
  served = data;
  beforeAll(async () => {
    if (folder) expect(bontel('load', folder, '--data', data).code).toBe(0);
    server = await startServer(data, { builder: true });
    browser = await startBrowser();
    if (!signedIn) return;
    await browser.get(server.link!);
    await see(folder ? 'Coming up in two days' : 'No site yet');
  });
  afterAll(async () => {
    await browser?.quit();
    await server?.stop();
    rmSync(data, { recursive: true, force: true });
  });
  return data;
}

/** Gives the window's inside so many CSS px; 800 high. */
export async function resize(width: number): Promise<void> {
  const [x, y] = (await browser.executeScript(
    'return [outerWidth - innerWidth, outerHeight - innerHeight]',
  )) as [number, number];
  await browser
    .manage()
    .window()
    .setRect({ x: 0, y: 0, width: width + x, height: 800 + y });
}

/** Does something in a second browser, signed in with a link of its own, or as somebody else. */
export async function inAnotherBrowser(
  act: () => Promise<void>,
  link = bontel('sign-in', '--data', served).out.trim(),
): Promise<void> {
  const first = browser;
  browser = await startBrowser();
  try {
    await browser.get(link);
    await see('Coming up in two days');
    await act();
  } finally {
    await browser.quit();
    browser = first;
  }
}

export const open = (path: string): Promise<void> => browser.get(server.url + path);
export const see = async (expected: string): Promise<void> => {
  await browser
    .wait(async () => (await words()).includes(expected), WAIT, `waiting to see "${expected}"`)
    .catch(async (problem: Error) => {
      throw new Error(`${problem.message}; the screen shows:\n${await words()}`);
    });
};
/**
 * The first element that is shown, once it hears what one does: screens arrive as HTML before they
 * come alive, and not all of a screen at once.
 */
export const ready = async (locator: By): Promise<WebElement> => {
  const found = await browser.wait(
    async () => {
      for (const element of await browser.findElements(locator)) {
        // One that was drawn anew meanwhile is looked for again: the next may be another's.
        const isShown = await element.isDisplayed().catch(() => null);
        if (isShown === null) return null;
        if (!isShown) continue;
        const heard = await browser
          .executeScript(
            `return Object.keys(arguments[0]).some((k) => k.startsWith('__reactProps'))`,
            element,
          )
          .catch(() => false);
        return heard ? element : null;
      }
      return null;
    },
    WAIT,
    `waiting for ${locator.toString()}`,
  );
  return found!;
};
/** What sticks to the top or the bottom of a pane may cover an element where it stands. */
const inTheMiddle = (element: WebElement): Promise<unknown> =>
  browser.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
/** What is said of elements that are drawn anew, or still come up. */
const NOT_YET = [
  'StaleElementReferenceError',
  'ElementClickInterceptedError',
  'ElementNotInteractableError',
  'NoSuchElementError',
];
/**
 * Does something to what is found, once it can be used; a screen that is drawn anew meanwhile is
 * asked again.
 */
const doAt = async (locator: By, act: (element: WebElement) => Promise<void>): Promise<void> => {
  let last: Error | undefined;
  await browser
    .wait(async () => {
      try {
        const element = await ready(locator);
        if (!(await element.isEnabled())) return false;
        await inTheMiddle(element);
        await act(element);
        return true;
      } catch (problem) {
        last = problem as Error;
        if (NOT_YET.includes(last.name)) return false;
        throw problem;
      }
    }, WAIT)
    .catch(async (problem: Error) => {
      const seen = `the screen shows:\n${await words()}`;
      throw new Error(`${locator.toString()}: ${(last ?? problem).message}; ${seen}`);
    });
};
export const clickOn = (locator: By): Promise<void> => doAt(locator, (element) => element.click());
export const press = (label: string): Promise<void> =>
  clickOn(By.xpath(`//button[normalize-space()=${JSON.stringify(label)}]`));
export const pressStarting = (start: string): Promise<void> =>
  clickOn(By.xpath(`//button[starts-with(normalize-space(), ${JSON.stringify(start)})]`));
export const keysAt = (locator: By, ...keys: string[]): Promise<void> =>
  doAt(locator, (element) => element.sendKeys(...keys));
export const writeAt = (locator: By, words: string): Promise<void> =>
  keysAt(locator, Key.chord(Key.CONTROL, 'a'), words);
export const write = (id: string, words: string): Promise<void> => writeAt(By.id(id), words);
export const writeInto = (label: string, words: string): Promise<void> =>
  writeAt(By.css(`[aria-label="${label}"]`), words);
const chooseBy = (locator: By, condition: string): Promise<void> =>
  doAt(locator, async (select) => {
    await (await select.findElement(By.xpath(`.//option[${condition}]`))).click();
  });
/** Chooses of a list of options the first that has such words. */
export const chooseAt = (locator: By, words: string): Promise<void> =>
  chooseBy(locator, `contains(., ${JSON.stringify(words)})`);
/** Chooses the first that begins so, of a list that is named by its label. */
export const chooseStarting = (label: string, start: string): Promise<void> =>
  chooseBy(
    By.css(`[aria-label="${label}"]`),
    `starts-with(normalize-space(), ${JSON.stringify(start)})`,
  );
export const choose = (id: string, words: string): Promise<void> => chooseAt(By.id(id), words);
/** What a script gives inside the sandboxed preview; null while that is drawn anew. */
export const inFrame = async (script: string): Promise<unknown> => {
  await browser.switchTo().frame(await browser.findElement(By.css('iframe[src]')));
  const found = await browser.executeScript(script).catch(() => null);
  await browser.switchTo().defaultContent();
  return found;
};
/** The text of the sandboxed preview, read inside it. */
export const inPreview = async (words: string): Promise<void> => {
  const read = async (): Promise<boolean> => {
    const frame = await browser.findElements(By.css('iframe[src]'));
    if (!frame[0]) return false;
    await browser.switchTo().frame(frame[0]);
    const text = (await browser
      .executeScript('return document.body?.innerText ?? ""')
      .catch(() => '')) as string;
    await browser.switchTo().defaultContent();
    return text.includes(words);
  };
  await browser.wait(read, WAIT, `waiting to see "${words}" in the preview`);
};

/** The words that the screen shows. */
export const words = async (): Promise<string> =>
  (await browser.executeScript('return document.body?.innerText ?? ""')) as string;

/** A public page, as a visitor gets it. */
export const publicPage = async (path: string): Promise<string> =>
  (await fetch(server.url + path)).text();

/** The cookies of who is signed in, for a request beside the browser. */
export const cookies = async (): Promise<string> =>
  (await browser.manage().getCookies()).map(({ name, value }) => `${name}=${value}`).join('; ');

/** The screen has no accessibility findings, and needs no scrolling to the side. */
export async function expectAccessible(): Promise<void> {
  const { violations } = await new AxeBuilder(browser).setLegacyMode().exclude('iframe').analyze();
  expect(violations.map((v) => `${v.impact} ${v.id}: ${v.nodes[0]?.html}`)).toEqual([]);
  expect(
    await browser.executeScript('return document.documentElement.scrollWidth <= innerWidth'),
  ).toBe(true);
}
