import { chmodSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { openDatabase } from '@/server/db/connection.ts';
import { type Files, SITE, temporaryFolder, writeFiles } from '../helpers/folder.ts';
import { write } from '@/server/store/write.ts';
import { readSite } from '@/server/files/read-site.ts';
import { bontel, bontelOnFullDisk, startBontel } from '../helpers/run.ts';
import { GOOD, load } from '../helpers/small-site.ts';

describe('pages, render, trace', () => {
  test('print what a site answers as of an instant, with codes 0, 1 and 2', () => {
    const { data, ran } = load(GOOD);
    expect(ran).toMatchObject({ code: 0, out: 'Loaded 2 entries and 0 files.\n' });
    const pages = bontel('pages', '--data', data, '--at', '2026-03-01', '--json').json<object[]>();
    expect(pages).toEqual([
      {
        path: '/',
        kind: 'front',
        title: 'Test site',
        type: null,
        entry: null,
        listing: null,
        page: null,
      },
      {
        path: '/all',
        kind: 'listing',
        title: 'Everything',
        type: 'note',
        entry: null,
        listing: 'all',
        page: 1,
      },
      {
        path: '/all/page-2',
        kind: 'listing',
        title: 'Everything · page 2',
        type: 'note',
        entry: null,
        listing: 'all',
        page: 2,
      },
      {
        path: '/first',
        kind: 'entry',
        title: 'First',
        type: 'note',
        entry: 'a',
        listing: null,
        page: null,
      },
      {
        path: '/second',
        kind: 'entry',
        title: 'Second',
        type: 'note',
        entry: 'b',
        listing: null,
        page: null,
      },
    ]);
    const page = bontel('render', '/first', '--data', data, '--at', '2026-03-01', '--json').json<{
      status: number;
      headers: Record<string, string>;
      html: string;
      validUntil: string;
    }>();
    expect(page).toMatchObject({
      status: 200,
      validUntil: '2026-05-31T23:00:00.000Z',
      headers: { 'content-language': 'en', 'content-type': 'text/html; charset=utf-8' },
    });
    expect(page.html).toContain('<p>Some <strong>words</strong>.</p>');
    const gone = bontel('trace', '/first', '--data', data, '--at', '2026-07-01', '--json');
    expect(gone.code).toBe(0);
    expect(gone.json<{ outcome: object; steps: object[] }>()).toMatchObject({
      outcome: { status: 410, location: null },
      steps: [{ step: 'normal form' }, {}, {}, {}, {}, { step: 'former address', matched: true }],
    });
    expect(bontel('render', '/', '--data', data, '--at', 'soon').code).toBe(2);
    expect(bontel('render').code).toBe(2);
    expect(bontel('pages', '--data', temporaryFolder()).code).toBe(1);
  });
});

describe('load refuses whole, and names every problem by file and line', () => {
  const broken: [string, Files, RegExp][] = [
    [
      'a broken pattern',
      {
        'types/note.yaml':
          'key: note\naddress: /{titel}\nfields:\n  - { key: title, kind: text }\n',
      },
      /types\/note\.yaml:2: .*no "titel".*\n.*Did you mean "title"/,
    ],
    [
      'an unknown field',
      { 'entries/note/a.md': '---\ntitle: A\nstok: 3\n---\n' },
      /entries\/note\/a\.md:3: Note has no field "stok".*\n.*Did you mean "stock"/,
    ],
    [
      'a filter of the wrong kind',
      {
        'listings/all.yaml':
          'key: all\ntype: note\nwhere:\n  field: stock\n  op: contains\n  value: 3\n',
      },
      /listings\/all\.yaml:5: .*cannot be asked "contains"/,
    ],
    [
      'malformed front matter',
      { 'entries/note/a.md': '---\ntitle: [A\n---\n' },
      /entries\/note\/a\.md:\d+: This is not YAML/,
    ],
    [
      'front matter that never ends',
      { 'entries/note/a.md': '---\ntitle: A\n' },
      /entries\/note\/a\.md:1: .*front matter/,
    ],
    [
      'an unreadable picture',
      { 'media/pea.png': 'no picture' },
      /media\/pea\.png:1: .*not a picture/,
    ],
    [
      'a wrong value',
      { 'entries/note/a.md': '---\ntitle: A\nstock: many\n---\n' },
      /entries\/note\/a\.md:3: Stock takes a number/,
    ],
    [
      'a missing required value',
      { 'entries/note/a.md': '---\nentry: { live: 2026-01-01 }\nstock: 1\n---\n' },
      /Title is required/,
    ],
    [
      'a wrong instant',
      { 'entries/note/a.md': '---\nentry: { live: someday }\ntitle: A\n---\n' },
      /"someday" is no instant/,
    ],
    [
      'a wrong zone',
      { 'site.yaml': { ...SITE, zone: 'Mars/Olympus' } },
      /site\.yaml:1: .*Mars\/Olympus/,
    ],
    [
      'a field key that patterns use',
      { 'types/note.yaml': 'key: note\nfields:\n  - { key: entry, kind: text }\n' },
      /types\/note\.yaml:3: .*"entry" is a name of the pattern language/,
    ],
    [
      'a row of a table with too many cells',
      { 'entries/note.csv': 'title,stock\nA,1\nB,2,3\n' },
      /entries\/note\.csv:3: This is not CSV/,
    ],
    [
      'a style sheet that imports',
      { 'style.css': 'p { color: red }\n@import "x.css";\n' },
      /style\.css:2: .*may not import/,
    ],
    [
      'a reference that leads nowhere',
      {
        'types/note.yaml':
          'key: note\naddress: /{title}\nfields:\n  - { key: title, kind: text }\n  - { key: stock, kind: number }\n  - { key: body, kind: richtext }\n  - { key: next, kind: reference }\n',
        'entries/note/a.md': '---\nentry: { id: a }\ntitle: A\nnext: c\n---\n',
      },
      /entries\/note\/a\.md:4: Next points at "c"/,
    ],
    [
      'addresses that build on each other',
      {
        'types/note.yaml':
          'key: note\naddress: /{next.path}/{title}\nfields:\n  - { key: title, kind: text }\n  - { key: stock, kind: number }\n  - { key: body, kind: richtext }\n  - { key: next, kind: reference, types: [other] }\n',
        'types/other.yaml':
          'key: other\naddress: /{url(back)}/{title}\nfields:\n  - { key: title, kind: text }\n  - { key: back, kind: reference, types: [note] }\n',
      },
      /types\/note\.yaml:2: The addresses of "Note", "Other" build on each other/,
    ],
    [
      'an address that reads itself',
      {
        'types/note.yaml':
          'key: note\naddress: /x/{entry.path}\nfields:\n  - { key: title, kind: text }\n  - { key: stock, kind: number }\n  - { key: body, kind: richtext }\n',
      },
      /types\/note\.yaml:2: The address of "Note" reads the address it is to make/,
    ],
    ['a file without a place', { 'notes.txt': 'x' }, /notes\.txt:1: .*no place for this file/],
    [
      'a file that stands there under another ending',
      { 'site.json': { ...SITE, name: 'Other' } },
      /site\.json:1: What it says stands in site\.yaml\.\n.*Keep one of them/,
    ],
  ];

  test.each(broken)('%s', async (_, files, message) => {
    const { site, issues } = await readSite(
      writeFiles(temporaryFolder(), { ...GOOD, ...files }),
      Date.now(),
    );
    expect(site).toBe(null);
    expect(issues.map((i) => `${i.path}:${i.line}: ${i.message}\n    ${i.fix}`).join('\n')).toMatch(
      message,
    );
  });

  test('what loads all the same and is hardly meant is told', () => {
    const { ran } = load({
      ...GOOD,
      'entries/note/c.md':
        '---\nentry: { saved: 2026-03-01, live: 2026-02-01/2026-06-01 }\ntitle: 007\n---\n',
    });
    expect(ran.code).toBe(0);
    expect(ran.err).toMatch(
      /entries\/note\/c\.md:2: A publication at 2026-02-01T00:00:00\+00:00 does nothing/,
    );
  });

  test('on the command line with code 1, without a stack, leaving the old site', () => {
    const { data } = load(GOOD);
    const { ran } = load({ ...GOOD, ...broken[0]![1] }, data);
    expect(ran.code).toBe(1);
    expect(ran.err).toMatch(broken[0]![2]);
    expect(ran.err).not.toMatch(/\n\s+at /);
    expect(bontel('render', '/second', '--data', data, '--at', '2026-03-01').code).toBe(0);
  });

  test('a folder that is not there, a folder without a site, two problems at once', () => {
    expect(load({ 'types/note.yaml': 'key: [' }).ran.err).toMatch(
      /site\.yaml:1[\s\S]*types\/note\.yaml:1/,
    );
    expect(bontel('load', '/nowhere/at/all', '--data', temporaryFolder())).toMatchObject({
      code: 1,
      err: expect.stringContaining('There is no such folder'),
    });
    const json = bontel('load', '/nowhere/at/all', '--json', '--data', temporaryFolder()).json<{
      loaded: boolean;
      issues: object[];
    }>();
    expect(json).toMatchObject({ loaded: false, issues: [{ code: 'no-folder' }] });
  });
});

test('files of which there is one may be JSON, and what is wrong in them is named there', async () => {
  const { 'site.yaml': site, ...rest } = GOOD;
  const read = (files: Files): ReturnType<typeof readSite> =>
    readSite(writeFiles(temporaryFolder(), { ...rest, ...files }), Date.now());
  const json = {
    'site.json': site!,
    'redirects.json': [{ from: '/was', to: '/first' }],
    'styles.yml': '- { key: soft, on: words }\n',
    'order.json': { types: ['note'] },
    'look.json': {},
  };
  const { site: whole, issues } = await read(json);
  expect(issues).toEqual([]);
  expect(whole!.design).toMatchObject({
    redirects: [{ from: '/was' }],
    styles: [{ key: 'soft' }],
    look: {},
  });
  const wrong = await read({ ...json, 'site.json': { ...SITE, front: { listing: 'none' } } });
  expect(wrong.issues.map(({ path, line }) => `${path}:${line}`)).toEqual(['site.json:1']);
});

test('texts that look like numbers stay as they are written, and numbers are read as such', () => {
  const { data } = load({
    ...GOOD,
    'entries/note/c.md': '---\nentry: { id: 12, live: 2026-01-01 }\ntitle: 007\nstock: 1.50\n---\n',
  });
  expect(
    bontel('render', '/007', '--data', data, '--at', '2026-03-01', '--json').json<{
      html: string;
    }>().html,
  ).toContain('<dd>1.5</dd>');
});

describe('data that cannot be used', () => {
  test('a database of a newer version, a file that is none, and a folder that cannot be written are said plainly', () => {
    const { data } = load(GOOD);
    const connection = openDatabase(join(data, 'site.db'));
    connection.driver.pragma('user_version = 999');
    connection.close();
    const newer = bontel('pages', '--data', data);
    expect(newer).toMatchObject({ code: 1, err: expect.stringContaining('newer version') });

    const odd = temporaryFolder();
    writeFileSync(
      join(odd, 'site.db'),
      'this is a text file, not a database, and long enough to be looked at'.repeat(20),
    );
    expect(bontel('pages', '--data', odd)).toMatchObject({
      code: 1,
      err: expect.stringContaining('not a readable database'),
    });

    if (process.getuid?.() !== 0) {
      const closed = temporaryFolder();
      chmodSync(closed, 0o500);
      expect(load(GOOD, join(closed, 'data')).ran).toMatchObject({
        code: 1,
        err: expect.stringContaining('cannot be written'),
      });
    }
    const blocked = join(temporaryFolder(), 'file');
    writeFileSync(blocked, '');
    expect(bontel('load', writeFiles(temporaryFolder(), GOOD), '--data', blocked).code).toBe(1);
  });
});

test('a full disk is said plainly, and the old site stays whole', () => {
  const { data } = load(GOOD);
  const before = bontel('pages', '--data', data, '--at', '2026-03-01', '--json').out;
  const ran = bontelOnFullDisk(300, 'load', 'demo/site', '--data', data);
  expect(ran).toMatchObject({
    code: 1,
    err: expect.stringContaining('is full; nothing was changed'),
  });
  expect(ran.err).not.toMatch(/\n\s+at /);
  expect(readdirSync(join(data, 'media')).filter((f) => f.endsWith('.new'))).toEqual([]);
  expect(bontel('pages', '--data', data, '--at', '2026-03-01', '--json').out).toBe(before);
});

test('a load that finds the database held says by whom and since when, and changes nothing', () => {
  const { data } = load(GOOD);
  const before = bontel('pages', '--data', data, '--json').out;
  const connection = openDatabase(join(data, 'site.db'));
  const second = write(
    connection,
    Date.now(),
    () => load({ ...GOOD, 'site.yaml': { ...SITE, name: 'Other' } }, data).ran,
  );
  connection.close();
  expect(second).toMatchObject({
    code: 1,
    err: expect.stringContaining(`the server (process ${process.pid}) has been writing since 2`),
  });
  expect(bontel('pages', '--data', data, '--json').out).toBe(before);
});

test('a kill in the middle of a load leaves the old site whole', async () => {
  const { data } = load(GOOD);
  const rows = Array.from({ length: 8_000 }, (_, i) => `n${i},2026-01-01/,Note ${i}`).join('\n');
  const folder = writeFiles(temporaryFolder(), {
    ...GOOD,
    'entries/note.csv': `entry.id,entry.live,title\n${rows}\n`,
  });
  const before = bontel('pages', '--data', data, '--at', '2026-03-01', '--json').out;
  for (const step of ['Writing', 'Working out']) {
    const child = startBontel('load', folder, '--data', data);
    const gone = new Promise((resolve) => child.once('exit', resolve));
    // Both steps are well inside the transaction, which takes seconds.
    child.stderr!.on(
      'data',
      (text: Buffer) =>
        text.toString().includes(step) && setTimeout(() => child.kill('SIGKILL'), 50),
    );
    await gone;
    expect(child.signalCode).toBe('SIGKILL');
    expect(bontel('pages', '--data', data, '--at', '2026-03-01', '--json').out).toBe(before);
  }
  expect(bontel('load', folder, '--data', data).code).toBe(0);
});
