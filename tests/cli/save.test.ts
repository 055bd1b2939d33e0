import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { temporaryFolder } from '../helpers/folder.ts';
import { bontel, bontelOnFullDisk, startBontel } from '../helpers/run.ts';
import { GOOD, load } from '../helpers/small-site.ts';

describe('save', () => {
  test('writes a folder that loads the same, and leaves others alone', () => {
    const { data } = load(GOOD);
    const folder = join(temporaryFolder(), 'saved');
    expect(bontel('save', folder, '--data', data)).toMatchObject({ code: 0 });
    const again = temporaryFolder();
    expect(bontel('load', folder, '--data', again)).toMatchObject({ code: 0 });
    const pages = (from: string): string => bontel('pages', '--all', '--data', from).out;
    expect(pages(again)).toBe(pages(data));
    const second = bontel('save', folder, '--data', again, '--json').json<object>();
    expect(second).toMatchObject({ saved: true, written: 0, removed: 0 });
    expect(bontel('save', data, '--data', data)).toMatchObject({
      code: 1,
      err: expect.stringContaining('was not saved here') as string,
    });
    expect(bontel('save', join(folder, 'site.yaml'), '--data', data)).toMatchObject({ code: 1 });
    expect(bontel('save', folder, '--data', temporaryFolder())).toMatchObject({ code: 1 });
  });

  test('killed in the middle leaves no folder, or one that does not load; then it saves', async () => {
    const rows = Array.from({ length: 3000 }, (_, i) => `n${i},Note ${i},2026-01-01/`);
    const csv = `entry.id,title,entry.live\n${rows.join('\n')}\n`;
    const { data } = load({ ...GOOD, 'entries/note.csv': csv });
    const place = temporaryFolder();
    const folder = join(place, 'saved');
    const killed = async (until: () => boolean): Promise<void> => {
      const child = startBontel('save', folder, '--data', data);
      const gone = new Promise((done) => child.once('exit', done));
      while (!until()) await new Promise((wait) => setTimeout(wait, 5));
      child.kill('SIGKILL');
      await gone;
    };
    await killed(() => readdirSync(place).some((name) => name.includes('.saving-')));
    expect(existsSync(folder)).toBe(false);
    expect(bontel('save', folder, '--data', data).code).toBe(0);
    expect(readdirSync(place)).toEqual(['saved']);
    await killed(() => !existsSync(join(folder, 'history.yaml')));
    expect(bontel('load', folder, '--data', temporaryFolder())).toMatchObject({
      code: 1,
      err: expect.stringContaining('history.yaml') as string,
    });
    expect(bontel('save', folder, '--data', data).code).toBe(0);
    expect(bontel('load', folder, '--data', temporaryFolder()).code).toBe(0);
  });

  test('says so where the disk is full, and leaves no folder', () => {
    const { data } = load({ ...GOOD, 'entries/note/c.json': { title: 'x'.repeat(100_000) } });
    const folder = join(temporaryFolder(), 'saved');
    const ran = bontelOnFullDisk(64, 'save', folder, '--data', data);
    expect(ran.code).toBe(1);
    expect(ran.err).not.toContain('    at ');
    expect(existsSync(folder)).toBe(false);
  });
});
