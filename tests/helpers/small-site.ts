import { type Files, temporaryFolder, writeFiles } from './folder.ts';
import { bontel } from './run.ts';

/** A small site that loads. */
export const GOOD: Files = {
  'site.yaml': `name: Test site\nurl: https://test.example\nzone: Europe/Dublin\nlanguage: en\n`,
  'types/note.yaml':
    'key: note\naddress: /{title}\nfields:\n  - { key: title, kind: text, required: true }\n  - { key: body, kind: richtext }\n  - { key: stock, kind: number }\n',
  'listings/all.yaml': 'key: all\nlabel: Everything\ntype: note\naddress: /all\npageSize: 1\n',
  'entries/note/a.md':
    '---\nentry: { id: a, live: 2026-01-01/2026-06-01 }\ntitle: First\n---\nSome **words**.\n',
  'entries/note/b.md': '---\nentry: { id: b, live: 2026-02-01 }\ntitle: Second\n---\n',
};

/** Loads files by the command line, into a data folder of their own. */
export function load(
  files: Files,
  data = temporaryFolder(),
): { data: string; ran: ReturnType<typeof bontel> } {
  const folder = writeFiles(temporaryFolder(), files);
  return { data, ran: bontel('load', folder, '--data', data) };
}
