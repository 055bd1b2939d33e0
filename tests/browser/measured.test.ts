import { appendFileSync, cpSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'vitest';
import { expectAccessible, open, see, serveBuilder } from '../helpers/builder.ts';

/** The demo in a style that is hard to read and to press. */
function hardToRead(): string {
  const folder = mkdtempSync(join(tmpdir(), 'bontel-faint-'));
  cpSync('demo/site', folder, { recursive: true });
  const rules =
    '.latin { color: #b9bfcc } .menu a { font-size: 8px; line-height: 9px; display: block }';
  appendFileSync(join(folder, 'style.css'), `${rules}\n`);
  return folder;
}

serveBuilder({ folder: hardToRead() });

test('words too faint and targets too small are told while a template is arranged', async () => {
  await open('/build/templates/variety-page');
  await see('” is too faint: ');
  await see('is wanted.');
  await see('smaller than 24 px');
  await expectAccessible();
});
