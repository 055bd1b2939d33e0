import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, Origin } from 'selenium-webdriver';
import { afterAll, expect, test } from 'vitest';
import {
  WAIT,
  browser,
  clickOn,
  expectAccessible,
  open,
  press,
  ready,
  see,
  serveBuilder,
  words,
  writeInto,
} from '../helpers/builder.ts';
import { writeFiles } from '../helpers/folder.ts';

const STEPS = ['Soak', 'Sow', 'Thin', 'Lift', 'Dry'];

const folder = mkdtempSync(join(tmpdir(), 'bontel-steps-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

serveBuilder({
  folder: writeFiles(join(folder, 'site'), {
    'site.yaml': { name: 'Steps', url: 'https://steps.example', zone: 'UTC', language: 'en' },
    'text-forms/plain.json': { key: 'plain', label: 'Plain', marks: ['bold', 'italic'] },
    'types/step.json': {
      key: 'step',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'place', kind: 'number', position: true },
        { key: 'words', kind: 'richtext', form: 'plain' },
      ],
    },
    'entries/step.json': STEPS.map((title, i) => ({
      entry: { id: title.toLowerCase(), live: '2026-01-01/' },
      title,
      place: i + 1,
    })),
  }),
});

const inOrder = async (): Promise<string[]> =>
  (await words()).split(/\s+/).filter((word) => STEPS.includes(word));
const seeInOrder = (...names: string[]): Promise<unknown> =>
  browser.wait(
    async () => (await inOrder()).join() === names.join(),
    WAIT,
    `waiting for the order ${names.join(', ')}`,
  );

test('rows are dragged, and moved by keys, to another place, which is saved', async () => {
  await open('/build/content?type=step&sort=place');
  await seeInOrder(...STEPS);
  const row = (name: string): By =>
    By.xpath(`//tr[.//*[normalize-space()="${name}"]]//span[@draggable="true"]`);
  const [from, to] = [await ready(row('Lift')), await ready(row('Sow'))];
  const { y: start } = await from.getRect();
  const { y: end } = await to.getRect();
  const act = browser.actions({ async: true }).move({ origin: from }).press();
  const whole = Math.round(end - start);
  for (const by of [-6, -6, whole + 16, -4])
    act.move({ origin: Origin.POINTER, x: 4, y: by, duration: 150 });
  await act.release().perform();
  await seeInOrder('Soak', 'Lift', 'Sow', 'Thin', 'Dry');
  await (await ready(By.css('[aria-label="Move Dry up"]'))).sendKeys(Key.ENTER);
  await seeInOrder('Soak', 'Lift', 'Sow', 'Dry', 'Thin');
  await open('/build/content?type=step&sort=place');
  await seeInOrder('Soak', 'Lift', 'Sow', 'Dry', 'Thin');
  await expectAccessible();
});

test('what texts may hold is ticked, released, and the editor offers no more', async () => {
  const offered = async (label: string): Promise<boolean> => {
    await open('/build/content/soak');
    await browser.wait(async () => (await words()).includes('Bold'), WAIT);
    return (await words()).includes(label);
  };
  expect(await offered('Italic')).toBe(true);
  await open('/build/settings/texts');
  await press('Plain');
  await clickOn(By.xpath('//label[normalize-space()="Italic"]/input'));
  await press('Release this now …');
  await press('Release now');
  await see('Released');
  await expectAccessible();
  expect(await offered('Italic')).toBe(false);
  await open('/build/settings/texts');
  await writeInto('Name of the new form', 'Short words');
  await press('Make it');
  await see('no field has it');
  await clickOn(By.css('[aria-label="Take away: Short words"]'));
  await browser.wait(async () => !(await words()).includes('no field has it'), WAIT);
});
