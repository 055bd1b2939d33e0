import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import JSZip from 'jszip';
import { By, Key, until } from 'selenium-webdriver';
import { describe, expect, test } from 'vitest';
import { readSite } from '@/server/files/read-site.ts';
import {
  browser,
  clickOn,
  cookies,
  inAnotherBrowser,
  inPreview,
  keysAt,
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
  writeInto,
} from '../helpers/builder.ts';

serveBuilder();

const title = async (path: string): Promise<string> =>
  /<title>(.*?)<\/title>/.exec(await publicPage(path))![1]!;
const untilTitle = (path: string, wanted: string): Promise<unknown> =>
  browser.wait(async () => (await title(path)) === wanted, WAIT, `waiting for "${wanted}"`);
const BEET = '/varieties/beets/ember-beet';

/** Opens a type's title rule, and writes another. */
async function writeRule(type: string, rule: string): Promise<void> {
  await open(`/build/types/${type}`);
  await pressStarting('SEO');
  await write('seo-title', rule);
}

describe('the bench', () => {
  test('holds an edit of a type until it is released; the release can be taken back', async () => {
    const before = await title(BEET);
    await writeRule('variety', '{title} on loan');
    await see(' on loan');
    await see('51 pages look otherwise');
    await press('Keep on the bench');
    await see('On the bench: Variety: title rule “{title} on loan”');
    await see('Bench: 6 unpublished');
    expect(await title(BEET)).toBe(before);
    await open('/build/bench');
    await see('You,');
    await see('51 pages look otherwise');
    await clickOn(By.css('section[aria-label=Reach] summary'));
    await press('Compare');
    await see('Before and after');
    await press('Back');
    await pressStarting('Release 1 line now');
    await see('No address moves.');
    await press('Release now');
    await see('Released');
    await untilTitle(BEET, 'Ember Beet on loan');
    await press('Take back now');
    await untilTitle(BEET, before);
  });

  test('shows what the whole of it would make of a page, and takes edits back and does them again', async () => {
    await open('/build/settings');
    await write('site-name', 'The Seed Shelf');
    await inPreview('The Seed Shelf');
    await press('Keep on the bench');
    await see('On the bench: Site: name “The Seed Shelf”');
    await open('/build/bench');
    await inPreview('The Seed Shelf');
    await press('Undo my last edit');
    await see('Taken back: Site: name');
    await see('No edits of the design.');
    await press('Redo');
    await see('On the bench again: Site: name');
    await open(`/build/content/volunteer?seeing=bench`);
    await inPreview('The Seed Shelf');
    expect(await publicPage('/')).not.toContain('The Seed Shelf');
  });

  test('is released at an instant, which every screen shows once the clock passes it', async () => {
    await open('/build/bench');
    await see('Site: name');
    await writeInto('Release at (Europe/Dublin)', 'tomorrow 8:00');
    await pressStarting('Release at');
    await see('can be cancelled until then');
    await (
      await ready(By.xpath('//div[@role="dialog"]//button[starts-with(., "Release at")]'))
    ).click();
    await see('Planned for');
    await open('/build');
    await see('Site: name “The Seed Shelf”');
    const at = new Date(Date.now() + 2 * 86_400_000).toISOString();
    await open(`/build/settings?at=${encodeURIComponent(at)}`);
    await inPreview('The Seed Shelf');
    await open('/build/settings');
    await inPreview('Marrowdale Seed Library');
    await open('/build/bench');
    await press('Cancel');
    await see('Cancelled; its edits and drafts stand on the bench again.');
    await see('Site: name “The Seed Shelf”');
    await press('Throw away');
    await see('Thrown away: Site: name');
    await press('Bring back');
    await see('On the bench again: Site: name');
    await press('Throw away');
    await see('No edits of the design.');
  });

  test('says what goes together with an edit that others build on, and brings all of it back', async () => {
    await open('/build/types/variety');
    await pressStarting('Fields');
    await writeInto('Name of the new field', 'Frost date');
    await writeInto('Kind of the new field', 'Date');
    await press('Add field');
    await press('Keep on the bench');
    await see('On the bench: Variety: field Frost date added');
    await writeRule('variety', '{title} [{frostDate}]');
    await press('Keep on the bench');
    await see('On the bench: Variety: title rule');
    await open('/build/bench');
    // By a key: while lines are still coming up, the next one may lie where this one lay.
    await keysAt(By.xpath('(//button[.="Throw away"])[1]'), Key.ENTER);
    await see('These go together');
    await press('Throw them away');
    await see('Thrown away: Variety: field Frost date added; Variety: title rule');
    await see('No edits of the design.');
    await press('Bring back');
    await see('Design (2)');
    await press('Undo my last edit');
    await see('Design (1)');
    await press('Undo my last edit');
    await see('No edits of the design.');
  });

  test('holds what two browsers change of one type beside each other, and shows both where they overlap', async () => {
    await writeRule('grower', '{name}, grower');
    await inAnotherBrowser(async () => {
      await open('/build/types/grower');
      await pressStarting('SEO');
      await write('seo-description', 'Keeps seed.');
      await press('Keep on the bench');
      await see('On the bench: Grower: description rule');
      await write('seo-title', '{name} of the library');
      await press('Keep on the bench');
      await see('On the bench: Grower: title rule');
    });
    await press('Keep on the bench');
    await see('There now');
    expect(await words()).toMatch(
      /Yours\s+“\{name\}, grower”\s+There now\s+“\{name\} of the library”/,
    );
    expect(await (await ready(By.id('seo-title'))).getAttribute('value')).toBe('{name}, grower');
    await press('Keep mine on top');
    await press('Keep on the bench');
    await see('On the bench: Grower: title rule “{name}, grower”, was “{name} of the library”');
    await open('/build/bench');
    await browser.wait(
      until.elementLocated(By.xpath('//section[@aria-label="Design"]//li[3]')),
      WAIT,
    );
  });
});

test('the whole site is saved from the settings, for those who are signed in', async () => {
  await open('/build/settings');
  const link = await browser.wait(until.elementLocated(By.css('a[download]')), WAIT);
  const address = (await link.getAttribute('href'))!;
  for (const method of ['HEAD', 'GET']) expect((await fetch(address, { method })).status).toBe(401);
  const headers = { cookie: await cookies() };
  // Whether it can be had is asked before, and makes nothing.
  expect((await fetch(address, { method: 'HEAD', headers })).status).toBe(200);
  const answer = await fetch(address, { headers });
  expect(answer.headers.get('content-disposition')).toBe(
    'attachment; filename="marrowdale-seed-library.zip"',
  );
  const archive = await JSZip.loadAsync(await answer.arrayBuffer());
  await browser.manage().deleteAllCookies();
  await press('Save the site as files');
  await see('You are signed out.');
  const folder = mkdtempSync(join(tmpdir(), 'bontel-saved-'));
  try {
    for (const file of Object.values(archive.files)) {
      mkdirSync(dirname(join(folder, file.name)), { recursive: true });
      writeFileSync(join(folder, file.name), await file.async('nodebuffer'));
    }
    const { site, issues } = await readSite(folder, Date.now());
    expect(issues).toEqual([]);
    expect(site!.entries.length).toBeGreaterThan(40);
  } finally {
    rmSync(folder, { recursive: true });
  }
});
