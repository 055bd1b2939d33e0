import { request } from 'node:http';
import { By, until } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import {
  browser,
  cookies,
  expectAccessible,
  open,
  see,
  server,
  serveBuilder,
  WAIT,
} from '../helpers/builder.ts';

serveBuilder({ signedIn: false });

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
    '/build/bench',
    '/build/settings',
  ])(
    '%s has no accessibility findings, of landmarks and headings neither, and no horizontal scrolling',
    async (path) => {
      await open(path);
      const title = await browser.wait(until.elementLocated(By.css('main h1')), WAIT);
      await browser.wait(until.elementIsVisible(title), WAIT);
      await expectAccessible();
    },
  );

  test.each([
    ['GET', '/build/content/%ff', 400],
    ['TRACE', '/api/outcome/entry', 405],
    ['PROPFIND', '/build', 405],
    ['POST', '/api/outcome/entry', 400],
    ['POST', '/api/outcome/nothing', 404, '{}'],
    ['POST', '/api/outcome/constructor', 404, '{}'],
    ['POST', '/api/outcome/type', 400, '{"at": 9e99, "key": "variety", "set": {}}'],
    ['POST', '/api/command/nothing', 404, '{}'],
    ['POST', '/api/command/constructor', 404, '{}'],
    ['POST', '/api/command/saveEntry', 400, '[[],[]]'],
    ['POST', '/api/command/editDesign', 413, 'x'.repeat(2_000_000)],
    ['POST', '/build/content', 405],
    ['DELETE', '/api/nothing', 404],
  ] as [string, string, number, string?][])(
    '%s %s answers %i, never 500',
    async (method, path, status, body = '{"at": "no number"') => {
      const cookie = await cookies();
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
        sent.end(method === 'POST' ? body : undefined);
      });
      expect(answer).toBe(status);
    },
  );

  test('an unknown screen says so', async () => {
    await open('/build/nowhere');
    await see('There is no such screen');
  });
});
