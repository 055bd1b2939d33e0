import { describe, expect, test } from 'vitest';
import { COMMANDS, type CommandName } from '@/server/commands/index.ts';
import { type Actor, NotPermitted } from '@/server/permit.ts';
import { answerText } from '@/server/process/rich-texts.ts';
import { benchDetail } from '@/server/queries/bench.ts';
import { shellDetail } from '@/server/queries/clock.ts';
import { entryDetail, newEntry } from '@/server/queries/entry.ts';
import { SITE, type TestSite, loadFiles } from '../helpers/folder.ts';
import { setting } from '../helpers/release.ts';
import { ANN, NOW, done, running } from '../helpers/seeds.ts';

const MARA: Actor = { id: 'mara', name: 'Mara', role: 'editor' };
const VISITOR: Actor = { id: '', name: '', role: 'visitor' };
const FILES = {
  'site.yaml': SITE,
  'text-forms/wide.yaml': { key: 'wide', roles: { editor: 'plain' } },
  'text-forms/plain.yaml': { key: 'plain', blocks: ['heading'], marks: ['bold'] },
  'types/report.yaml': {
    key: 'report',
    address: '/reports/{title}',
    fields: [
      { key: 'title', kind: 'text', required: true },
      { key: 'body', kind: 'richtext', form: 'wide' },
    ],
  },
  'entries/report.yaml': [
    {
      entry: { id: 'fog', saved: '2026-01-01', live: '2026-01-01/' },
      title: 'Fog',
      body: '> Said.\n\n| Crew |\n|---|\n| Four |',
    },
  ],
};
const typed = (type: string, text: string): object => ({
  type,
  content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
});

async function reports() {
  const site = await loadFiles(FILES, NOW);
  expect(site.issues).toEqual([]);
  const body = newestOf(site, 'fog');
  return { site, body, mara: running(site, MARA), ann: running(site, ANN) };
}

/** A text as an editor's form gets it. */
function newestOf({ view }: TestSite, id: string): { content: object[] } {
  return entryDetail(view, ANN, id, NOW + 3_600_000, NOW)!.values.body as never;
}

describe('an editor', () => {
  test('may do what concerns content, and nothing that concerns the design or what is lost', () => {
    const refused = (actor: Actor): CommandName[] =>
      (Object.keys(COMMANDS) as CommandName[]).filter((name) => {
        try {
          running({ connection: null } as never, actor)(name, {} as never);
          return false;
        } catch (error) {
          return error instanceof NotPermitted;
        }
      });
    expect(refused(MARA).sort()).toEqual(
      [
        ...['editDesign', 'rebaseEdit', 'undoEdit', 'redoEdit', 'discardEdits', 'undoRelease'],
        ...['startSite', 'purgeEntry', 'addFont'],
      ].sort(),
    );
    expect(refused(ANN)).toEqual([]);
    expect(refused(VISITOR)).toEqual(Object.keys(COMMANDS));
  });

  test('puts into a text what the narrower form lets in, and keeps what others put there', async () => {
    const { site, body, mara } = await reports();
    const save = (content: object[], id: string | null = 'fog') =>
      mara('saveEntry', {
        ...{ id, type: 'report', seen: null },
        values: { title: 'Fog', body: { type: 'doc', content } },
      });
    const fog = { type: 'paragraph', content: [{ type: 'text', text: 'Much fog.' }] };
    done(save([...body.content, fog]));
    expect(newestOf(site, 'fog').content).toEqual([...body.content, fog]);
    const more = save([...body.content, typed('blockquote', 'Mine.')]);
    expect(more).toMatchObject({ ok: false, issues: [{ code: 'not-let-in', path: 'body' }] });
    expect(save([typed('blockquote', 'Mine.')], null).ok).toBe(false);
    done(save([fog]));
    expect(save(body.content).ok).toBe(false);
  });

  test('mends a starter that somebody else made, with what stands in it', async () => {
    const { body, mara, ann } = await reports();
    const starter = { type: 'report', name: 'Report', seen: null };
    const values = { title: null, body };
    const { id } = done(ann('saveStarter', { ...starter, id: null, values }));
    const title = { ...values, title: 'The … in the fog' };
    done(mara('saveStarter', { ...starter, id, values: title }));
    expect(mara('saveStarter', { ...starter, id: null, values })).toMatchObject({ ok: false });
  });

  test('changes many texts at once by the same rule', async () => {
    const { site, mara, ann } = await reports();
    const code = { type: 'codeBlock', content: [{ type: 'text', text: 'To all.' }] };
    const doc = { type: 'doc', content: [code] };
    const change = {
      what: { do: 'setValue', field: 'body', value: doc },
      which: { ids: ['fog'] },
    } as never;
    expect(done(mara('changeEntries', change))).toMatchObject({ done: 0 });
    expect(done(ann('changeEntries', change))).toMatchObject({ done: 1 });
    expect(newestOf(site, 'fog')).toEqual(doc);
  });

  test('begins an entry like another one without what may not be put in, and is told so', async () => {
    const { site, body } = await reports();
    const like = { entry: 'fog', fields: null };
    const begun = newEntry(site.view, MARA, 'report', NOW, like)!;
    expect(begun.like).toEqual({ name: 'Fog', blank: [], less: ['Body'] });
    const { content } = begun.values.body as { content: { type: string }[] };
    expect(content.map(({ type }) => type)).toEqual(['paragraph', 'paragraph', 'paragraph']);
    const text = begun.type.fields.find(({ key }) => key === 'body')!.text;
    expect(text).toMatchObject({ blocks: ['heading'], marks: ['bold'] });
    const whole = newEntry(site.view, ANN, 'report', NOW, like)!;
    expect(whole.like).toMatchObject({ less: [] });
    expect(whole.values.body).toEqual(body);
  });

  test('writes a text as source by the same rule, with what stood there before', async () => {
    const { site, body } = await reports();
    const read = (actor: Actor, source: string, before?: unknown) =>
      answerText(site.view, actor, 'textRead', {
        ...{ at: NOW, type: 'report', field: 'body', form: 'markdown', source },
        ...(before === undefined ? {} : { before }),
      }).body;
    const quote = '> Said.\n\nFog.';
    expect(read(MARA, quote)).toEqual({
      faults: [{ at: '/content/0', words: expect.stringContaining('ask a builder') as string }],
    });
    expect(read(MARA, quote, body)).toHaveProperty('doc');
    expect(read(MARA, `${quote}\n\n> More.`, body)).toMatchObject({ faults: [{}] });
    expect(read(ANN, quote)).toHaveProperty('doc');
  });

  test('releases drafts from the bench, and no edits of the design', async () => {
    const { site, mara, ann } = await reports();
    done(mara('saveEntry', { id: 'fog', type: 'report', values: { title: 'Mist' }, seen: null }));
    const { design } = site.view.at(NOW)!.site;
    const edit = done(ann('editDesign', { steps: setting(design, 'site', { name: 'Rowers' }) }));
    const drafts = [{ entry: 'fog', revision: null }];
    expect(() => mara('release', { edits: [edit.id], drafts })).toThrow(NotPermitted);
    expect(done(mara('release', { drafts }))).toMatchObject({ drafts: 1, sentences: [] });
    const wall = NOW + 3_600_000;
    expect(shellDetail(site.view, MARA, wall).unpublished).toBe(0);
    expect(shellDetail(site.view, ANN, wall).unpublished).toBe(1);
    expect(benchDetail(site.view, MARA, wall)!.edits).toHaveLength(1);
  });
});
