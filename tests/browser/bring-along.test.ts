import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import JSZip from 'jszip';
import { By } from 'selenium-webdriver';
import { expect, test } from 'vitest';
import {
  browser,
  cookies,
  open,
  press,
  publicPage,
  see,
  serveBuilder,
  server,
} from '../helpers/builder.ts';
import { temporaryFolder, writeFiles } from '../helpers/folder.ts';

serveBuilder({ folder: null });

const CLUB = {
  'site.yaml': {
    name: 'Rowing club',
    url: 'https://club.example',
    zone: 'Europe/Dublin',
    language: 'en',
  },
  'types/boat.json': {
    key: 'boat',
    address: '/boats/{title}',
    fields: [{ key: 'title', kind: 'text' }],
  },
  'entries/boat/swift.json': { entry: { live: '2026-01-01/' }, title: 'Swift' },
};

async function choose(label: string, path: string): Promise<void> {
  await browser.findElement(By.css(`input[type=file][aria-label="${label}"]`)).sendKeys(path);
}

async function archiveOf(files: Record<string, object>): Promise<string> {
  const zip = new JSZip();
  for (const [name, value] of Object.entries(files)) zip.file(name, JSON.stringify(value));
  const path = join(temporaryFolder(), 'club.zip');
  writeFileSync(path, await zip.generateAsync({ type: 'nodebuffer' }));
  return path;
}

test('what is wrong with a folder is told by file and line, and nothing is loaded', async () => {
  const wrong = { ...CLUB, 'entries/boat/swift.json': { titel: 'Swift' } };
  await choose('Choose a folder', writeFiles(temporaryFolder(), wrong));
  await see('Nothing was loaded');
  await see('entries/boat/swift.json:1');
  await choose('Choose a .zip', await archiveOf({ ...CLUB, 'types/boat.json': { key: 'b' } }));
  await see('types/boat.json');
});

test('the demo is opened where there is no site, and takes the place of none', async () => {
  await press('Open the demo');
  await see('Coming up in two days');
  expect(await publicPage('/varieties')).toContain('Varieties');
  const again = await fetch(`${server.url}/api/demo`, {
    method: 'POST',
    headers: { cookie: await cookies(), origin: server.url },
  });
  expect(again.status).toBe(409);
  const stranger = { method: 'POST', headers: { origin: server.url } };
  for (const path of ['demo', 'upload', 'upload/x', 'upload/x/load'])
    expect((await fetch(`${server.url}/api/${path}`, stranger)).status, path).toBe(401);
});

test('a .zip takes the place of the site once it is told what would go', async () => {
  await open('/build/settings');
  await see('From files');
  await choose('Choose a .zip', await archiveOf(CLUB));
  await see('What loading it would do');
  expect(await publicPage('/varieties')).toContain('Varieties');
  await press('Leave it');
  await choose('Choose a folder', writeFiles(temporaryFolder(), CLUB));
  await see('What loading it would do');
  const cells = By.css('table[aria-label="What loading it would do"] tbody tr');
  const rows = await Promise.all((await browser.findElements(cells)).map((row) => row.getText()));
  expect(rows[0]).toMatch(/^Content types 1 0 \d+$/);
  expect(rows[2]).toMatch(/^Entries 1 0 \d+$/);
  await press('Replace Marrowdale Seed Library');
  await see('Loaded 1 entries.');
  expect(await publicPage('/boats/swift')).toContain('Swift');
  expect((await fetch(`${server.url}/varieties`)).status).toBe(404);
});
