import { describe, expect, test } from 'vitest';
import type { Seeing } from '@/server/queries/clock.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { contentTable } from '@/server/queries/content.ts';
import { entryDetail } from '@/server/queries/entry.ts';
import { listingOutcome } from '@/server/queries/listing.ts';
import { movingOn } from '@/server/queries/moving.ts';
import { templateOutcome } from '@/server/queries/template-outcome.ts';
import { typeOutcome } from '@/server/queries/type.ts';
import { viewedPage, writtenText } from '@/server/queries/view-page.ts';
import type { TestSite } from '../helpers/folder.ts';
import { GERMAN, run, site, wall } from '../helpers/german-site.ts';
import { ANN } from '../helpers/seeds.ts';

const looking = (language: string | null, seeing: Seeing = 'published') => ({
  ...{ at: wall, past: false, seeing, language },
});
const HEADING = { id: 'b1', block: 'heading', text: 'Of {title}', level: 1 };
const WITH_PAGE = {
  'templates/seed-page.json': {
    ...{ key: 'seed-page', kind: 'page', type: 'seed' },
    blocks: [HEADING, { block: 'link', to: '/all', text: 'All' }],
  },
  'languages/de.json': {
    ...GERMAN,
    texts: { ...GERMAN.texts, 'templates/seed-page/blocks/b1': { text: 'Von {title}' } },
  },
};

describe('what a design gives is seen in the language that is looked at', () => {
  const page = (
    { view }: TestSite,
    specimen: string,
    { language, seeing, text }: { language: string | null; seeing?: Seeing; text?: string },
  ): string => {
    const part = 'templates/seed-page/blocks/b1';
    const set = { do: 'set', part, property: 'text', was: HEADING.text, now: text! } as const;
    const steps = text === undefined ? [] : [set];
    const input = { id: 'seed-page', steps, specimen };
    const { html, issues } = templateOutcome(view, ANN, input, looking(language, seeing))!;
    expect(issues).toEqual([]);
    return html!.replaceAll(/<!--.*?-->/g, '');
  };

  test('a template: its words, those of the entry, and where its links lead', async () => {
    const s = await site(WITH_PAGE);
    expect(page(s, 'pea', { language: null })).toContain('<h1>Of Pea</h1>');
    const german = page(s, 'pea', { language: 'de' });
    expect(german).toContain('<h1>Von Erbse</h1>');
    expect(german).toContain('<a href="/de/alle">All</a>');
    expect(german).toMatch(/<html[^>]* lang="de"/);
    expect(page(s, 'bean', { language: 'de' })).toContain('<h1>Von Bean</h1>');
    expect(page(s, 'pea', { language: 'fr' })).toContain('<h1>Of Pea</h1>');
  });

  test('a template with unsaved words, where the language says nothing in their place', async () => {
    const s = await site({ ...WITH_PAGE, 'languages/de.json': GERMAN });
    const text = 'About {title}';
    expect(page(s, 'pea', { language: 'de', text })).toContain('<h1>About Erbse</h1>');
    const said = await site(WITH_PAGE);
    expect(page(said, 'pea', { language: 'de', text })).toContain('<h1>Von Erbse</h1>');
  });

  test('an entry with a draft: as the language has it, else the site’s own', async () => {
    const s = await site(WITH_PAGE);
    const said = { entry: 'pea', language: 'de', values: { title: 'Perle' }, seen: 1 };
    expect(run(s, 'saveWords', said)).toMatchObject({ ok: true });
    const own = { id: 'bean', type: 'seed', values: { title: 'Broad bean' }, seen: 1 };
    expect(run(s, 'saveEntry', own)).toMatchObject({ ok: true });
    const draft = (id: string): string => page(s, id, { language: 'de', seeing: 'bench' });
    expect(draft('pea')).toContain('<h1>Von Perle</h1>');
    expect(draft('bean')).toContain('<h1>Von Broad bean</h1>');
    expect(page(s, 'pea', { language: 'de' })).toContain('<h1>Von Erbse</h1>');
  });

  test('a type: its page and where that stands; its own address stays', async () => {
    const { view } = await site();
    const input = { id: 'seed', steps: [], specimen: 'pea' };
    const own = typeOutcome(view, ANN, input, looking(null))!;
    const german = typeOutcome(view, ANN, input, looking('de'))!;
    expect(german).toMatchObject({
      path: '/seeds/pea',
      shownAt: '/de/sorten/erbse',
      title: 'Erbse',
    });
    expect(own).toMatchObject({ path: '/seeds/pea', shownAt: '/seeds/pea', title: 'Pea' });
    expect(german.elsewhere).toEqual(own.elsewhere);
  });
});

describe('a listing in the language that is looked at', () => {
  const outcome = async (language: string | null, more: object = {}) => {
    const { view } = await site({ 'languages/de.json': { ...GERMAN, ...more } });
    return listingOutcome(view, ANN, { id: 'all', steps: [], find: '' }, looking(language))!;
  };

  test('has the entries by their names and addresses there, and its page', async () => {
    const { entries, page } = await outcome('de');
    expect(entries.map(({ name, path }) => [name, path])).toEqual([
      ['Bean', '/de/sorten/bean'],
      ['Erbse', '/de/sorten/erbse'],
    ]);
    expect(page!.html).toContain('<h1>Alle</h1>');
  });

  test('says who is left out since they say nothing in it', async () => {
    const { entries, leftOut } = await outcome('de', { fallback: false });
    expect(entries.map(({ id }) => id)).toEqual(['pea']);
    expect(leftOut).toMatchObject([{ id: 'bean', reasons: [{ words: 'not in Deutsch' }] }]);
    expect((await outcome(null, { fallback: false })).leftOut).toEqual([]);
  });
});

describe('a page of a language is edited in it where it stands', () => {
  const loaded = (): Promise<TestSite> => {
    const page = WITH_PAGE['templates/seed-page.json'];
    const blocks = [{ ...HEADING, text: '{title}' }];
    return site({
      ...WITH_PAGE,
      'templates/seed-page.json': { ...page, blocks },
      'languages/de.json': GERMAN,
    });
  };
  const fieldOf = ({ view }: TestSite, named: string): string => {
    const { fields } = view.at(wall)!.site.types.get('seed')!;
    return fields.find(({ key }) => key === named)!.id;
  };
  /** Its status and language, the words of its heading, and what stands at those. */
  const heading = ({ view }: TestSite, path: string, seeing: Seeing = 'published'): unknown => {
    const { html, ...page } = viewedPage(view, ANN, path, looking(null, seeing))!;
    const place = /<!--place (\S*)--><h1>(.*)<\/h1>/.exec(html)!;
    return [page.status, page.language, place[2], JSON.parse(decodeURIComponent(place[1]!))];
  };

  test('a text is one of its language', async () => {
    const s = await loaded();
    const text = { of: 'text', entry: 'pea', field: fieldOf(s, 'title') };
    expect(heading(s, '/seeds/pea')).toEqual([200, null, 'Pea', text]);
    const spoken = { ...text, language: 'de' };
    expect(heading(s, '/de/sorten/erbse')).toEqual([200, 'de', 'Erbse', spoken]);
  });

  test('a text for which other words stand in is to be filled in', async () => {
    const s = await loaded();
    const field = { of: 'field', entry: 'bean', key: 'title', language: 'de' };
    expect(heading(s, '/de/sorten/bean')).toEqual([200, 'de', 'Bean', field]);
  });

  test('what is written is a draft in that language alone, and is taken back', async () => {
    const s = await loaded();
    const title = fieldOf(s, 'title');
    const spoken = { language: 'de', field: title };
    const asked = { entry: 'pea', ...spoken };
    expect(writtenText(s.view, ANN, asked, wall)).toMatchObject({
      ...{ value: 'Erbse', label: 'Title (Deutsch)', name: 'Pea' },
    });
    const what = { do: 'setValue', value: 'Zuckererbse', ...spoken } as const;
    const did = run(s, 'changeEntries', { what, which: { ids: ['pea'] } });
    expect(did).toMatchObject({ ok: true, value: { done: 1 } });
    const pages = (): unknown[] =>
      ['/seeds/pea', '/de/sorten/erbse', '/de/sorten/zuckererbse'].map((path) => {
        const { html, status } = viewedPage(s.view, COMMAND_LINE, path, looking(null, 'draft'))!;
        return /<h1>(.*)<\/h1>/.exec(html)?.[1] ?? status;
      });
    expect(pages()).toEqual(['Pea', 308, 'Zuckererbse']);
    expect(entryDetail(s.view, ANN, 'pea', wall, wall, 'de')!.values).toMatchObject({
      ...{ [title]: 'Zuckererbse', [fieldOf(s, 'about')]: 'Grün.' },
    });
    const { change } = (did as { value: { change: number } }).value;
    expect(run(s, 'undoChange', { change })).toMatchObject({ ok: true, value: { done: 1 } });
    expect(pages()).toEqual(['Pea', 'Erbse', 'Seite nicht gefunden']);
  });
});

describe('pages of a language with the whole bench', () => {
  const addressOf = async (now: string) => {
    const s = await site();
    const part = 'languages/de';
    const { texts } = s.view.at(wall)!.site.design.languages[0]!;
    const said = { ...texts, 'types/seed': { address: now } };
    const step = { do: 'set', part, property: 'texts', was: texts, now: said } as const;
    expect(run(s, 'editDesign', { steps: [step] })).toMatchObject({ ok: true });
    return s;
  };
  const answers = ({ view }: TestSite, path: string): unknown => {
    const { status, location } = viewedPage(view, ANN, path, looking(null, 'bench'))!;
    return location ?? status;
  };

  test('stand where the language would have them', async () => {
    const s = await addressOf('/samen/{title}');
    expect(answers(s, '/de/samen/erbse')).toBe(200);
    expect(answers(s, '/de/sorten/erbse')).toBe('/de/samen/erbse');
    expect(answers(s, '/seeds/pea')).toBe(200);
  });

  test('move where the design does that gives their address, and no other', async () => {
    const s = await site();
    const moving = (language: number): string[] | null => {
      const { site: working } = s.view.working(wall)!;
      return movingOn(s.view, working.languages[language]!, wall);
    };
    expect([moving(0), moving(1)]).toEqual([[], []]);
    const moved = await addressOf('/samen/{title}');
    const { site: working } = moved.view.working(wall)!;
    const of = (language: number) => movingOn(moved.view, working.languages[language]!, wall);
    expect([of(0), of(1)!.sort()]).toEqual([[], ['bean', 'pea']]);
  });
});

test('content tells of each language whether an entry is public in words of its own', async () => {
  const s = await site();
  const said = { entry: 'bean', language: 'de', values: { title: 'Bohne' }, seen: 1 };
  const lives = (): unknown[] =>
    contentTable(s.view, ANN, wall, { type: 'seed', sort: '@name' }).rows.map((row) => [
      row.id,
      row.elsewhere.map(({ language, spans, isWritten }) => [language, spans.length, isWritten]),
    ]);
  expect(lives()).toEqual([
    ['bean', [['Deutsch', 0, false]]],
    ['pea', [['Deutsch', 1, true]]],
  ]);
  expect(run(s, 'saveWords', said)).toMatchObject({ ok: true });
  expect(lives()[0]).toEqual(['bean', [['Deutsch', 0, true]]]);
});
