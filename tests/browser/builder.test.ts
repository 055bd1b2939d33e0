import { mkdtempSync, rmSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/webdriverjs';
import { By, Key, type WebDriver, type WebElement, until } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { startBrowser } from '../helpers/browser.ts';
import { bontel, type RunningServer, startServer } from '../helpers/run.ts';

const WAIT = 12_000;
const data = mkdtempSync(join(tmpdir(), 'bontel-browser-'));
let server: RunningServer;
let browser: WebDriver;

beforeAll(async () => {
  expect(bontel('load', 'demo/site', '--data', data).code).toBe(0);
  server = await startServer(data, { builder: true });
  browser = await startBrowser();
});
afterAll(async () => {
  await browser?.quit();
  await server?.stop();
  rmSync(data, { recursive: true, force: true });
});

const open = (path: string): Promise<void> => browser.get(server.url + path);
const see = (words: string): Promise<unknown> =>
  browser.wait(
    async () =>
      ((await browser.executeScript('return document.body?.innerText ?? ""')) as string).includes(
        words,
      ),
    WAIT,
    `waiting to see "${words}"`,
  );
/** An element, once it is shown and hears what one does: screens arrive as HTML before they come alive. */
const ready = async (locator: By): Promise<WebElement> => {
  const found = await browser.wait(
    async () => {
      for (const element of await browser.findElements(locator)) {
        const heard = await browser
          .executeScript(
            `return Object.keys(arguments[0]).some((k) => k.startsWith('__reactProps'))`,
            element,
          )
          .catch(() => false);
        if (heard && (await element.isDisplayed().catch(() => false))) return element;
      }
      return null;
    },
    WAIT,
    `waiting for ${locator.toString()}`,
  );
  return found!;
};
const press = async (label: string): Promise<void> => {
  const button = await ready(By.xpath(`//button[normalize-space()=${JSON.stringify(label)}]`));
  await browser.wait(until.elementIsEnabled(button), WAIT);
  await button.click();
};
const pressStarting = async (words: string): Promise<void> =>
  (
    await ready(By.xpath(`//button[starts-with(normalize-space(), ${JSON.stringify(words)})]`))
  ).click();
const writeAt = async (locator: By, words: string): Promise<void> => {
  const field = await ready(locator);
  await browser.executeScript('arguments[0].scrollIntoView({ block: "center" })', field);
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), words);
};
const write = (id: string, words: string): Promise<void> => writeAt(By.id(id), words);
const writeInto = (label: string, words: string): Promise<void> =>
  writeAt(By.css(`[aria-label="${label}"]`), words);
/** The text of the sandboxed preview, read inside it. */
const inPreview = async (words: string): Promise<void> => {
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

describe('signing in', () => {
  test('the builder is closed to visitors', async () => {
    await open('/build/content');
    await see('Open the sign-in link');
    const answer = await fetch(`${server.url}/api/outcome/entry`, {
      method: 'POST',
      body: '{}',
      headers: { origin: server.url },
    });
    expect(answer.status).toBe(401);
  });

  test('the one-time link signs in once, and leaves no token in the address', async () => {
    await browser.get(server.link!);
    await see('Coming up in two days');
    expect(await browser.getCurrentUrl()).toBe(`${server.url}/build`);
    const again = await fetch(`${server.url}/api/session`, {
      method: 'POST',
      headers: { origin: server.url, 'content-type': 'application/json' },
      body: JSON.stringify({ token: new URL(server.link!).hash.slice(1) }),
    });
    expect(again.status).toBe(401);
  });
});

describe('screens', () => {
  test.each([
    '/build',
    '/build/content',
    '/build/content/purple-podded-wren',
    '/build/types',
    '/build/types/variety',
    '/build/listings/sow-this-month',
    '/build/addresses?try=/sow-now',
  ])('%s has no serious accessibility findings and no horizontal scrolling', async (path) => {
    await open(path);
    await browser.wait(until.elementLocated(By.css('h1')), WAIT);
    const { violations } = await new AxeBuilder(browser).exclude('iframe').analyze();
    expect(
      violations
        .filter((v) => v.impact === 'serious' || v.impact === 'critical')
        .map((v) => `${v.id}: ${v.nodes[0]?.html}`),
    ).toEqual([]);
    expect(
      await browser.executeScript('return document.documentElement.scrollWidth <= innerWidth'),
    ).toBe(true);
  });

  test.each([
    ['GET', '/build/content/%ff', 400],
    ['TRACE', '/api/outcome/entry', 405],
    ['PROPFIND', '/build', 405],
    ['POST', '/api/outcome/entry', 400],
    ['POST', '/api/outcome/nothing', 404],
    ['DELETE', '/api/nothing', 404],
  ])('%s %s answers %i, never 500', async (method, path, status) => {
    const cookie = (await browser.manage().getCookies())
      .map(({ name, value }) => `${name}=${value}`)
      .join('; ');
    const { hostname, port } = new URL(server.url);
    const answer = await new Promise<number>((resolve, reject) => {
      const sent = request(
        { hostname, port, path, method, headers: { origin: server.url, cookie } },
        (response) => {
          response.resume();
          resolve(response.statusCode!);
        },
      );
      sent.once('error', reject);
      sent.end(method === 'POST' ? '{"at": "no number"' : undefined);
    });
    expect(answer).toBe(status);
  });

  test('an unknown screen says so', async () => {
    await open('/build/nowhere');
    await see('There is no such screen');
  });
});

describe('an entry', () => {
  test('shows its page while one types, in a sandbox that scripts in it cannot leave', async () => {
    await open('/build/content/frost-lettuce');
    await inPreview('Small tight heads');
    await write('field-summary', 'Heads <b>as hard</b> as ice.');
    await inPreview('Heads <b>as hard</b> as ice.');
    expect(await browser.findElement(By.css('iframe')).getAttribute('sandbox')).toBe(
      'allow-scripts',
    );
  });

  test('saved is not published; published is public at once, and the screen says where', async () => {
    const page = async (): Promise<string> =>
      (await fetch(`${server.url}/varieties/leaves/frost-lettuce`)).text();
    await press('Save');
    await see('Not public until it is published');
    expect(await page()).not.toContain('as ice');
    await press('Publish now');
    await see('Live at /varieties/leaves/frost-lettuce');
    expect(await page()).toContain('as ice');
  });

  test('unsaved words, rich text and links among them, are kept in the browser and can be brought back', async () => {
    await open('/build/content/tidewater-pea');
    await ready(By.css('.rich'));
    const story = await browser.wait(until.elementLocated(By.id('field-story')), WAIT);
    await browser.executeScript('arguments[0].scrollIntoView({ block: "center" })', story);
    await story.click();
    await story.sendKeys(Key.chord(Key.CONTROL, Key.END), ' Kept by the tide.');
    await story.sendKeys(Key.chord(Key.SHIFT, Key.HOME));
    await press('Link');
    await writeInto('Where the selected words lead', '/about-the-library');
    await press('Set link');
    await inPreview('Kept by the tide.');
    await see('unsaved changes');
    await browser.wait(
      async () =>
        browser.executeScript(
          `return (localStorage.getItem('bontel.unsaved.tidewater-pea') ?? '').includes('about-the-library')`,
        ),
      WAIT,
    );
    await open('/build/content/tidewater-pea');
    await press('Bring them back');
    await inPreview('Kept by the tide.');
    expect(await browser.findElement(By.id('field-story')).getText()).toContain(
      'Kept by the tide.',
    );
    await press('Save');
    await see('Not public until it is published');
  });

  test('a new one is written, saved, published ahead of time, and stands in Content as scheduled', async () => {
    await open('/build/content/new/page');
    await write('field-title', 'Rainwater & barrels');
    await inPreview('Rainwater & barrels');
    await press('Save');
    await browser.wait(until.urlMatches(/content\/page-[0-9a-f]+/), WAIT);
    const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
    await ready(By.css('input[type=datetime-local]'));
    await browser.executeScript(
      `const i = document.querySelector('input[type=datetime-local]'); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(i, '${tomorrow}T08:00'); i.dispatchEvent(new Event('input', { bubbles: true }));`,
    );
    await pressStarting('Publish at');
    await see('goes live');
    await open('/build/content?search=Rainwater');
    await see('scheduled');
    await open(`/build/addresses?try=/rainwater-barrels&at=${tomorrow}T12:00:00Z`);
    await see('stands here');
  });
});

describe('the clock', () => {
  test('moves every screen: what is not there yet, what is there later', async () => {
    await open('/build/addresses?try=/varieties/peas/skylark-pea');
    await see('404');
    const slider = await ready(By.css('[role=slider]'));
    for (let i = 0; i < 12 && !(await browser.getCurrentUrl()).includes('T08:00'); i++) {
      await slider.sendKeys('.');
      await browser.sleep(700);
    }
    await see('stands here');
    expect(await slider.getAttribute('aria-valuetext')).toMatch(
      /Looking at .*Europe\/Dublin.*from now/,
    );
    await press('Now');
    await see('404');
  });

  test('in the past forms are read-only and only offer to restore', async () => {
    await open(
      `/build/content/ballast-carrot?at=${new Date(Date.now() - 60 * 86_400_000).toISOString()}`,
    );
    await see('The past stays as it was');
    const title = await browser.findElement(By.id('field-title'));
    expect([await title.getAttribute('value'), await title.isEnabled()]).toEqual([
      'Quay Carrot',
      false,
    ]);
    expect(
      (await browser.findElements(By.xpath('//button[starts-with(., "Publish")]'))).length,
    ).toBe(0);
    await inPreview('Quay Carrot');
  });
});

describe('the design', () => {
  test('a broken address pattern says what is wrong and offers the field; mended, its outcome follows; saved, former addresses lead on', async () => {
    await open('/build/types/variety');
    await write('address', '/seeds-to-borrow/{titel}');
    await see('Did you mean "title"?');
    expect(
      await browser.findElement(By.xpath('//button[.="Save and release now"]')).isEnabled(),
    ).toBe(false);
    await press('Use “title”');
    await see('/seeds-to-borrow/');
    await press('Save and release now');
    await see('Former addresses lead to the new ones');
    const moved = await fetch(`${server.url}/varieties/peas/tidewater-pea`, { redirect: 'manual' });
    expect([moved.status, moved.headers.get('location')]).toEqual([
      308,
      '/seeds-to-borrow/tidewater-pea',
    ]);
  });

  test('seeing with my draft, a list has the draft where it would stand', async () => {
    await open('/build/content/frost-lettuce');
    await write('field-title', 'Aaa Lettuce');
    await press('Save');
    await see('Not public until it is published');
    await open('/build/listings/all-varieties');
    await see('In (');
    expect(await browser.executeScript('return document.body.innerText')).not.toContain(
      'Aaa Lettuce',
    );
    await ready(By.css('select[aria-label=Seeing]'));
    await browser.executeScript(
      `const s = document.querySelector('select[aria-label=Seeing]'); Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(s, 'draft'); s.dispatchEvent(new Event('change', { bubbles: true }));`,
    );
    await browser.wait(until.urlContains('seeing=draft'), WAIT);
    await see('Aaa Lettuce');
    const first = await browser.findElement(By.css('table tbody tr:nth-child(2) a'));
    expect(await first.getText()).toBe('Aaa Lettuce');
  });

  test('what is left out says when it comes in, and the clock can be set to it', async () => {
    await open('/build/listings/sow-this-month');
    await see('In (');
    await pressStarting('Left out');
    await writeInto('Find an entry', 'Doorstep');
    await (
      await ready(
        By.xpath('//tr[contains(., "Doorstep Squash")]//button[starts-with(., "Appears")]'),
      )
    ).click();
    await browser.wait(until.urlContains('at='), WAIT);
    await pressStarting('In (');
    await see('Doorstep Squash');
  });

  test('addresses are found by path or name, former ones too', async () => {
    await open('/build/addresses');
    await writeInto('Search addresses', 'quay');
    await see('leads to');
    await browser.wait(
      async () => (await browser.findElements(By.css('table tbody tr'))).length === 1,
      WAIT,
    );
    await (await ready(By.css('table tbody button'))).click();
    await see('stood here, and stands at');
  });

  test('a listing shows who is in and who is left out while its sentence changes', async () => {
    await open('/build/listings/sow-this-month');
    await see('In (');
    const before = await browser.findElement(By.css('[role=tab]')).getText();
    await writeAt(By.css('input[type=number][aria-label=Value]'), '50');
    await browser.wait(
      async () => (await browser.findElement(By.css('[role=tab]')).getText()) !== before,
      WAIT,
    );
    await pressStarting('Left out');
    await see('packets in stock is more than 50');
  });
});
