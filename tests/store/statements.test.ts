import { expect, test } from 'vitest';
import { type Files, SITE, at, loadFiles } from '../helpers/folder.ts';
import { countStatements } from '../helpers/count-statements.ts';

const NOW = at('2026-07-01T12:00:00Z');
const live = { saved: '2026-01-01', live: '2026-01-01' };
const drawing = (colour: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><rect fill="${colour}" width="40" height="30"/></svg>`;

/** A listing of so many boats, each with a picture, a builder, tags and a crew of its own. */
function boats(count: number): Files {
  const each = Array.from({ length: count }, (_, i) => i);
  return {
    'site.yaml': { ...SITE, zone: 'UTC' },
    'subjects/traits.yaml': {
      key: 'traits',
      kind: 'tags',
      subjects: each.map((i) => ({ key: `t${i}`, name: `Trait ${i}` })),
    },
    'types/builder.yaml': {
      key: 'builder',
      address: '/builders/{title}',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'portrait', kind: 'media' },
      ],
    },
    'types/boat.yaml': {
      key: 'boat',
      address: '/boats/{title}',
      card: 'boat-card',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'photo', kind: 'media' },
        { key: 'builtBy', kind: 'reference', types: ['builder'] },
        { key: 'traits', kind: 'tags', set: 'traits' },
        { key: 'friends', kind: 'reference', types: ['boat'], many: true },
      ],
    },
    'listings/boats.yaml': { key: 'boats', type: 'boat', address: '/all', pageSize: 100 },
    'templates/boat-card.yaml': {
      key: 'boat-card',
      kind: 'card',
      type: 'boat',
      blocks: [
        { block: 'heading', text: '{title}', level: 3, link: true },
        { block: 'picture', field: 'photo' },
        { block: 'picture', field: 'builtBy.portrait', width: 80 },
        { block: 'fieldSheet', fields: ['builtBy', 'traits'] },
        { block: 'subjects', field: 'traits' },
        {
          block: 'repeat',
          over: 'friends',
          blocks: [{ block: 'text', text: '{item.title}[ by {item.builtBy.title}]' }],
        },
        {
          block: 'condition',
          where: { field: 'builtBy', op: 'not-blank' },
          blocks: [{ block: 'text', text: 'Built by {builtBy.title}' }],
        },
      ],
    },
    'entries/boat.yaml': each.map((i) => ({
      entry: { id: `b${i}`, ...live },
      title: `Boat ${i}`,
      photo: `p${i}.svg`,
      builtBy: `m${i}`,
      traits: [`t${i}`],
      friends: [`b${(i + 1) % count}`, `b${(i + 2) % count}`],
    })),
    'entries/builder.yaml': each.map((i) => ({
      entry: { id: `m${i}`, ...live },
      title: `Builder ${i}`,
      portrait: `p${(i + 1) % count}.svg`,
    })),
    ...Object.fromEntries(each.map((i) => [`media/p${i}.svg`, drawing(`#0000${10 + i}`)])),
  };
}

test('a list of cards takes as many statements with forty entries as with four', async () => {
  const counts: number[] = [];
  for (const count of [4, 40]) {
    const { view, connection, issues } = await loadFiles(boats(count), NOW);
    expect(issues).toEqual([]);
    let html = '';
    counts.push(countStatements(connection, () => (html = view.render('/all', NOW)!.body)));
    expect(html.match(/<h3[ >]/g)).toHaveLength(count);
    expect(html.match(/Built by Builder/g)).toHaveLength(count);
  }
  expect(counts[1]).toBe(counts[0]);
});
