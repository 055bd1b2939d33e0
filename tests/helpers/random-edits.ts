import fc from 'fast-check';
import type { DesignEdit } from '@/core/design-edit/edit.ts';
import {
  type Json,
  type Part,
  type PartPath,
  ROOTS,
  partAt,
  partsBelow,
  sortWord,
} from '@/core/design-edit/parts.ts';
import { placeOf } from '@/core/design-edit/apply.ts';
import { valueAt } from '@/core/design-edit/properties.ts';
import type { Place, Step } from '@/core/design-edit/steps.ts';
import { FIELD_KINDS } from '@/core/design/kinds/index.ts';
import { type Wanted, withKind } from '@/core/design-edit/change-kind.ts';
import type { Design } from '@/core/design/spec.ts';
import { designOf } from './design.ts';

/** A design with something of every sort: four types, nested conditions, nested blocks. */
export const RICH_DESIGN: Design = designOf({
  site: { front: { listing: 'home' }, frame: 'frame', seo: { description: 'Of {site.name}' } },
  subjectSets: [{ key: 'traits', kind: 'tags' }],
  picks: [{ key: 'shelf' }, { key: 'staff', id: 'by-staff' }],
  styles: [
    { key: 'soft', on: 'words' },
    { key: 'panel', on: 'block', look: { ground: 'raised' } },
  ],
  textForms: [
    { key: 'short', marks: ['bold'], levels: [2], parts: ['seed'], styles: ['soft'] },
    { key: 'long', roles: { editor: 'short' } },
  ],
  languages: [
    {
      key: 'de',
      texts: {
        'types/grower': { address: '/gaertner/{title}', seo: { title: '{title} ({said})' } },
        'listings/home': { label: 'Alles', seo: { title: 'Alles von {site.name}' } },
      },
    },
  ],
  types: [
    {
      key: 'grower',
      presets: { picks: ['staff'] },
      address: '/growers/{title}',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'village', kind: 'text' },
        { key: 'about', kind: 'richtext', form: 'short' },
        {
          key: 'said',
          kind: 'computed',
          pattern: '{title}[ of {village}][, {plots.of.family}][, {plots.rows.long} m]',
        },
        {
          key: 'plots',
          kind: 'group',
          many: true,
          fields: [
            { key: 'of', kind: 'reference', types: ['seed'] },
            { key: 'like', kind: 'tags', set: 'traits' },
            { key: 'soil', kind: 'choice', options: ['clay', 'loam'], default: 'loam' },
            { key: 'rows', kind: 'group', fields: [{ key: 'long', kind: 'number' }] },
          ],
        },
      ],
    },
    {
      key: 'seed',
      address: '/seeds/{family}/{title}',
      template: 'seed-page',
      card: 'seed-card',
      retired: { listing: 'home' },
      timing: [
        {
          do: 'retire',
          from: 'sow',
          after: 'P2M',
          where: { any: [{ field: 'family', op: 'is', value: 'pea' }] },
        },
        { do: 'publish', from: 'sow' },
      ],
      seo: { title: '{title}[ from {grower.village}]' },
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'family', kind: 'choice', options: [{ key: 'pea', label: 'Pea' }, 'bean', 'beet'] },
        { key: 'grower', kind: 'reference', types: ['grower'], otherSide: 'saves' },
        { key: 'sow', kind: 'date' },
        { key: 'stock', kind: 'number' },
        { key: 'traits', kind: 'tags', set: 'traits' },
        {
          key: 'rowers',
          kind: 'group',
          many: true,
          fields: [
            { key: 'name', kind: 'text' },
            { key: 'seat', kind: 'number' },
          ],
        },
      ],
    },
    {
      key: 'club-rules',
      single: true,
      fields: [
        { key: 'motto', kind: 'text' },
        { key: 'more', kind: 'link', many: true },
        { key: 'led', kind: 'reference', types: ['grower'] },
      ],
    },
    {
      key: 'page',
      address: '/{within.path}/{title}',
      fields: [
        { key: 'title', kind: 'text' },
        { key: 'inside', kind: 'reference', types: ['page'], sitsWithin: true },
      ],
    },
  ],
  listings: [
    {
      key: 'home',
      type: 'seed',
      address: '/all',
      sort: ['title'],
      pins: ['s', { entry: 'late', from: '2026-03-01T08:00' }],
      card: 'seed-card',
      intro: 'Led by {site.clubRules.led.village}',
    },
    {
      key: 'now',
      type: 'seed',
      where: {
        all: [
          { field: 'sow', op: 'on-or-before', value: 'today' },
          { any: [{ field: 'family', op: 'any-of', value: ['pea', 'beet'] }] },
        ],
      },
      sort: ['-stock', 'title'],
    },
    {
      key: 'near',
      type: 'seed',
      where: {
        all: [
          { field: 'grower.village', op: 'is', value: 'Kinvara' },
          { field: 'family', op: 'is', value: { page: 'family' } },
        ],
      },
      sort: ['title'],
    },
  ],
  templates: [
    { key: 'frame', kind: 'frame', blocks: [{ block: 'slot', slot: 'main' }] },
    {
      key: 'seed-page',
      kind: 'page',
      type: 'seed',
      blocks: [
        { block: 'heading', text: '{title}[ · {site.clubRules.motto}]', level: 1 },
        { block: 'columns', columns: [[{ block: 'date', field: 'sow' }], []] },
        {
          block: 'group',
          style: 'panel',
          blocks: [
            { block: 'fieldSheet', fields: ['family', 'grower.village'] },
            { block: 'listing', listing: 'now' },
            { block: 'listing', listing: 'near' },
            { block: 'items', field: 'rowers', fields: ['seat', 'name'] },
            { block: 'picks', picks: 'shelf' },
          ],
        },
      ],
      slots: { aside: [{ block: 'text', text: '{grower.title}' }] },
    },
    {
      key: 'seed-card',
      kind: 'card',
      type: 'seed',
      blocks: [{ block: 'heading', text: '{title}', link: true }],
    },
  ],
  redirects: [{ from: '/old', to: '/all' }],
  css: 'body { color: green }',
});

/** All parts of a design that stand in lists, with where. */
function everyPart(design: Design): [PartPath, Part][] {
  return Object.keys(ROOTS).flatMap((list) =>
    (design[list as 'types'] as unknown as Part[]).flatMap((part) =>
      partsBelow(`${list}/${part.id}`, part),
    ),
  );
}

/** Lists of a design in which parts may stand. */
function everyList(design: Design): Omit<Place, 'after'>[] {
  const inner = everyPart(design).flatMap(([within, part]) =>
    ['fields', 'options', 'blocks', 'slots.aside', 'columns.0', 'columns.1', 'all', 'any'].flatMap(
      (list) => (Array.isArray(valueAt(part, list)) ? [{ within, list }] : []),
    ),
  );
  return [...Object.keys(ROOTS).map((list) => ({ within: '', list })), ...inner];
}

const TEXTS: Json[] = [
  '{title}',
  '{title} · {site.name}',
  '/x/{title}',
  'today + 3',
  'title',
  'stock',
  'now',
  'seed-card',
  'pea',
  7,
  true,
  null,
];

const PROPERTIES = [
  'label',
  'address',
  'clash',
  'seo.title',
  'seo.index',
  'help',
  'required',
  'text',
  'level',
  'value',
  'op',
  'sort',
  'pageSize',
  'card',
  'template',
  'summary',
  'to',
  'css',
  'name',
  'empty',
];

let made = 0;

/** A new part for a list, some of them such as do not fit there. */
function newPart(list: string, pick: (n: number) => number): { id: string } & Record<string, Json> {
  const key = `new${(made += 1)}`;
  const id = pick(2) === 0 ? key : `id-${key}`;
  if (list === 'types') return { id, key, fields: [{ key: 'title', kind: 'text' }] };
  if (list === 'fields') return { id, key, kind: ['text', 'number', 'date'][pick(3)]! };
  if (list === 'options') return { id, key, label: key };
  if (list === 'listings') return { id, key, type: 'seed' };
  if (list === 'templates') return { id, key, kind: 'card', type: 'seed', blocks: [] };
  if (list === 'subjectSets') return { id, key, kind: 'tags' };
  if (list === 'timing') return { id, do: 'retire', from: ['entry.created', 'sow'][pick(2)]! };
  if (list === 'picks') return { id, key };
  if (list === 'redirects') return { id, from: `/${key}`, to: '/all' };
  if (list === 'all' || list === 'any') return { id, field: 'stock', op: 'not-blank' };
  return { id, block: 'text', text: ['{title}', '{stock}', 'words'][pick(3)]! };
}

/** One step on a design as it stands; whether it is accepted is another matter. */
export function randomStep(design: Design, pick: (n: number) => number): Step {
  const of = <T>(all: readonly T[]): T => all[pick(all.length)]!;
  const all = everyPart(design);
  // All but filters at the top, which stand in no list.
  const parts = all.filter(([p]) => placeOf(design, p));
  const [path, part] = of(parts);
  const lists = everyList(design);
  const inList = of(lists);
  const members = parts.filter(([p]) => {
    const place = placeOf(design, p)!;
    return place.within === inList.within && place.list === inList.list;
  });
  const after = of([null, ...members.map(([, { id }]) => id!)]);
  switch (of(['set', 'set', 'set', 'add', 'remove', 'move', 'rename'] as const)) {
    case 'set': {
      const [target, own] = of([
        of(all),
        ['site', design.site as unknown as Part],
        ['style', { css: design.css }],
      ] as [PartPath, Part][]);
      const known = Object.keys(own).filter((k) => k !== 'id' && k !== 'key');
      const property = pick(2) === 0 ? of(PROPERTIES) : of(known);
      return { do: 'set', part: target, property, was: valueAt(own, property), now: of(TEXTS) };
    }
    case 'add':
      return { do: 'add', part: newPart(inList.list, pick), ...inList, after };
    case 'remove':
      return { do: 'remove', part: path, was: part as never, ...placeOf(design, path)! };
    case 'move': {
      const siblings = parts.filter(
        ([p]) => placeOf(design, p)!.list === placeOf(design, path)!.list,
      );
      const [, beside] = of(siblings);
      const from = placeOf(design, path)!;
      const near = { ...from, after: beside.id === part.id ? null : beside.id! };
      return { do: 'move', part: path, from, to: pick(3) === 0 ? { ...inList, after } : near };
    }
    case 'rename':
      return { do: 'rename', part: path, was: part.key ?? '', now: `key${(made += 1)}` };
  }
}

/** Numbers that decide what happens, one after the other; they shrink to few and small. */
export const choices = fc.array(fc.nat({ max: 10_000 }), { minLength: 60, maxLength: 200 });

/** Draws from numbers given, round and round. */
export function drawing(numbers: readonly number[]): (n: number) => number {
  let next = 0;
  return (n) => numbers[next++ % numbers.length]! % n;
}

const KINDS = FIELD_KINDS.map(({ kind }) => kind);

/** A field that is to hold something else, under an id of its own. */
export function kindSteps(design: Design, path: PartPath, wanted: Wanted): Step[] {
  const was = partAt(design, path)! as never;
  const next = withKind(was, was, wanted, () => `id-kind${(made += 1)}`);
  const setOf = (kind: string): string | undefined =>
    design.subjectSets.find((set) => set.kind === kind)?.key;
  const options = ['Pea', '2', 'Yes'].map((label, i) => ({ id: `o${i}`, key: `o${i}`, label }));
  const part = {
    ...next,
    ...(wanted.kind === 'choice' ? { options } : {}),
    ...(wanted.kind === 'tags' ? { set: setOf('tags') } : {}),
    ...(wanted.kind === 'category' ? { set: setOf('tree') } : {}),
  } as never;
  const place = placeOf(design, path)!;
  return [
    { do: 'remove', part: path, was, ...place },
    { do: 'add', part, ...place },
  ];
}

function kindEdit(design: Design, pick: (n: number) => number): DesignEdit {
  const type = design.types[pick(design.types.length)]!;
  const all = partsBelow(`types/${type.id}`, type as unknown as Part);
  const fields = all.filter(([path]) => sortWord(path) === 'field');
  const [path, field] = fields[pick(fields.length)]!;
  const kind = pick(3) === 0 ? (field.kind as string) : KINDS[pick(KINDS.length)]!;
  return { steps: kindSteps(design, path, { kind, many: pick(2) === 0 }) };
}

/** An edit of one to three steps. */
export function randomEdit(design: Design, pick: (n: number) => number): DesignEdit {
  if (pick(6) === 0 && design.types.length > 0) return kindEdit(design, pick);
  return { steps: Array.from({ length: 1 + pick(2) }, () => randomStep(design, pick)) };
}
