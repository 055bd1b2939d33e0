import { z } from 'zod';
import { lookSpec } from '../style/look-spec.ts';
import { blocksWithin } from '../design/block-ids.ts';
import {
  type Design,
  picksSpec,
  redirectSpec,
  siteSpec,
  subjectSetSpec,
  templateSpec,
  typeSpec,
} from '../design/spec.ts';
import { languageSpec } from '../design/language-spec.ts';
import { styleSpec, textFormSpec } from '../design/text-form-spec.ts';
import { type FilterSpec, filtersWithin, listingSpec } from '../design/listing-spec.ts';

/** A value of plain data, as specs are made of. */
export type Json = string | number | boolean | null | Json[] | { [name: string]: Json };

/** Anything of a design that has an id: a type, one of its fields, a block, a condition, … */
export type Part = { id?: string; key?: string; label?: string } & Record<string, Json>;

/**
 * Where a part stands, by ids: `types/variety`, `types/variety/fields/title`,
 * `types/crew/fields/rowers/fields/seat`,
 * `templates/card/blocks/b3`, `listings/beans/conditions/c1`, `site`, `style`.
 */
export type PartPath = string;

/** One sort of part that a design holds at its top, with what is found within. */
interface RootSort {
  /** As sentences name one: "type", "listing". */
  word: string;
  /** What one of them is read by again after it was changed. */
  spec: z.ZodType;
  /** Sorts of parts within, by the name they have in paths. */
  inner: Record<string, InnerSort>;
}

interface InnerSort {
  word: string;
  /** All of the sort within a part, however deep. */
  find: (part: Part) => Part[];
  inner?: Record<string, InnerSort>;
}

const listed =
  (name: string) =>
  (part: Part): Part[] =>
    (part[name] ?? []) as Part[];

const OPTIONS: InnerSort = { word: 'option', find: listed('options') };
/** Fields of a type, and of a group, however deep. */
const FIELDS: InnerSort = {
  word: 'field',
  find: listed('fields'),
  inner: {
    options: OPTIONS,
    get fields() {
      return FIELDS;
    },
  },
};
const TIMING: InnerSort = { word: 'timing rule', find: listed('timing') };
const BLOCKS: InnerSort = {
  word: 'block',
  find: ({ blocks, slots }) => [...blocksWithin([blocks, slots])] as unknown as Part[],
};
const CONDITIONS: InnerSort = {
  word: 'condition',
  find: ({ where }) => [...filtersWithin(where as unknown as FilterSpec)] as unknown as Part[],
};

/** Every sort of part that stands in a list of the design, by that list's name. */
export const ROOTS: Record<string, RootSort> = {
  types: { word: 'type', spec: typeSpec, inner: { fields: FIELDS, timing: TIMING } },
  listings: { word: 'listing', spec: listingSpec, inner: { conditions: CONDITIONS } },
  templates: { word: 'template', spec: templateSpec, inner: { blocks: BLOCKS } },
  subjectSets: { word: 'subject set', spec: subjectSetSpec, inner: {} },
  picks: { word: 'picks', spec: picksSpec, inner: {} },
  textForms: { word: 'form of texts', spec: textFormSpec, inner: {} },
  styles: { word: 'style', spec: styleSpec, inner: {} },
  redirects: { word: 'redirect', spec: redirectSpec, inner: {} },
  languages: { word: 'language', spec: languageSpec, inner: {} },
};

/** What there is one of: what holds for the site, and the style sheet. */
export const SINGLES = {
  site: { word: 'site', spec: siteSpec },
  style: {
    word: 'style',
    spec: z.strictObject({ css: z.string().max(500_000), look: lookSpec.optional() }),
  },
} as const satisfies Record<string, { word: string; spec: z.ZodType }>;

/** Whether a path's first word is one of the parts there is one of. */
export function isSingle(root: string): root is keyof typeof SINGLES {
  return Object.hasOwn(SINGLES, root);
}

/** The path of the part at the top that a part belongs to: `types/variety`, `site`. */
export function rootOf(path: PartPath): PartPath {
  const [root, id] = path.split('/');
  return id === undefined || isSingle(root!) ? root! : `${root}/${id}`;
}

/** The path of the part that another is one of: of a field its type, or its group. */
export function outerOf(path: PartPath): PartPath {
  return path.split('/').slice(0, -2).join('/');
}

/** A part of a design as it stands; undefined where there is none. */
export function partAt(design: Design, path: PartPath): Part | undefined {
  const [root, id, ...rest] = path.split('/');
  if (root === 'site') return design.site as unknown as Part;
  if (root === 'style')
    return { css: design.css, ...(design.look ? { look: design.look } : {}) } as Part;
  if (!Object.hasOwn(ROOTS, root!)) return undefined;
  const list = design[root as 'types'] as unknown as Part[];
  let found = list.find((part) => part.id === id);
  let inner: Record<string, InnerSort> | undefined = ROOTS[root!]!.inner;
  for (let i = 0; found && i < rest.length; i += 2) {
    const sort: InnerSort | undefined = Object.hasOwn(inner ?? {}, rest[i]!)
      ? inner![rest[i]!]
      : undefined;
    found = sort?.find(found).find((part) => part.id === rest[i + 1]);
    inner = sort?.inner;
  }
  return found;
}

/** In which sort of part a path ends: "field", "block"; undefined where it leads nowhere. */
export function sortWord(path: PartPath): string | undefined {
  const [root, , ...rest] = path.split('/');
  if (isSingle(root!)) return SINGLES[root].word;
  let sort: RootSort | InnerSort | undefined = ROOTS[root!];
  for (let i = 0; i < rest.length; i += 2) sort = sort?.inner?.[rest[i]!];
  return sort?.word;
}

/**
 * The paths of all parts below a part at the top, itself first, with the parts: the order is that
 * in which they are written.
 */
export function partsBelow(path: PartPath, part: Part): [PartPath, Part][] {
  const all: [PartPath, Part][] = [[path, part]];
  const add = (at: PartPath, of: Part, inner: Record<string, InnerSort> | undefined): void => {
    for (const [name, sort] of Object.entries(inner ?? {}))
      for (const found of sort.find(of)) {
        all.push([`${at}/${name}/${found.id}`, found]);
        add(`${at}/${name}/${found.id}`, found, sort.inner);
      }
  };
  add(path, part, ROOTS[path.split('/')[0]!]?.inner);
  return all;
}

/** The name of the sort under which parts of a list are found: `fields`, `blocks`, `conditions`. */
export function sortOfList(within: PartPath, list: string): string {
  if (within === '') return list;
  const [root] = within.split('/');
  if (root === 'templates') return 'blocks';
  return root === 'listings' ? 'conditions' : list;
}

/** The path that a part has, or will have, in a list of another. */
export function pathIn(within: PartPath, list: string, id: string): PartPath {
  const sort = sortOfList(within, list);
  if (within === '') return `${sort}/${id}`;
  const isTree = sort === 'blocks' || sort === 'conditions';
  return `${isTree ? rootOf(within) : within}/${sort}/${id}`;
}
