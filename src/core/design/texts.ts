import type { Block } from './block.ts';
import { isDateStyle } from '../pattern/date-format.ts';
import { blocksWithin } from './block-ids.ts';
import type { Field } from './field.ts';
import { type Language, type Texts, below, rootOf } from './language-spec.ts';
import type { ContentType, Design } from './spec.ts';

/** What a text is: words as they stand, a pattern, an address or its pattern, or HTML. */
export type TextSort = 'words' | 'pattern' | 'address' | 'markup';

/** A text of a design that readers meet, and that each language may say otherwise. */
export interface DesignText {
  /** Path of the part: `types/variety`. */
  part: string;
  /** The property, as a language names it: `seo.title`. */
  property: string;
  sort: TextSort;
  text: string;
}

/** A text where it stands in a design. */
interface Place extends DesignText {
  put: (text: string) => void;
}

/** Properties of blocks that readers meet, and what they hold. */
const OF_BLOCKS: readonly (readonly [string, TextSort])[] = [
  ['text', 'pattern'],
  ['to', 'pattern'],
  ['html', 'markup'],
  ['heading', 'words'],
  ['label', 'words'],
  ['home', 'words'],
  ['after', 'words'],
  ['format', 'words'],
];

/** All texts of a design that readers meet, in the order in which its parts are written. */
export function textsOf(design: Design): DesignText[] {
  return [...placesOf(design)].map(({ put: _, ...text }) => text);
}

/** What a language says in place of a text; null where it says nothing. */
export function saidIn(
  { texts }: Pick<Language, 'texts'>,
  { part, property }: Pick<DesignText, 'part' | 'property'>,
): string | null {
  let said: string | Texts | undefined = Object.hasOwn(texts, part) ? texts[part] : undefined;
  for (const name of property.split('.')) {
    if (typeof said !== 'object' || !Object.hasOwn(said, name)) return null;
    said = said[name];
  }
  return typeof said === 'string' ? said : null;
}

/**
 * A design as a further language has it: with its texts, and with all addresses below its own. It is
 * read, never stored.
 */
export function inLanguage(design: Design, language: Language): Design {
  const copy = structuredClone({ ...design, languages: [] }) as Design;
  say(language, placesOf(copy));
  const root = `/${language.path}`;
  for (const listing of copy.listings)
    if (listing.address !== undefined) listing.address = below(root, listing.address);
  for (const type of copy.types) type.edition = language.id;
  leadWithin(copy, design, root);
  const { key, id, label, fallback } = language;
  copy.edition = { key, id, label, fallback, root, own: design.site.language };
  copy.site.language = language.language;
  return copy;
}

/**
 * A design as a further language has it, given how that one has a design that differs from it in
 * templates alone; all else is taken from there.
 */
export function withTemplatesOf(design: Design, language: Language, there: Design): Design {
  const copy = { ...there, templates: structuredClone(design.templates) };
  say(language, ofTemplates(copy));
  leadWithin(copy, design, rootOf(copy));
  return copy;
}

/** Puts what a language says in place of texts. */
function say(language: Language, places: Iterable<Place>): void {
  for (const place of places) {
    const said = saidIn(language, place);
    if (said !== null) place.put(said);
  }
}

/** Has links to the front page, and to listings, lead to those of the same language. */
function leadWithin(copy: Design, { listings }: Design, root: string): void {
  const there = new Map([['/', root]]);
  listings.forEach(({ address }, i) => {
    const own = copy.listings[i]?.address;
    if (address !== undefined && own !== undefined) there.set(address, own);
  });
  for (const { blocks, slots } of copy.templates)
    for (const block of blocksWithin([blocks, slots]))
      for (const name of ['to', 'path'])
        if (typeof block[name] === 'string') block[name] = there.get(block[name]) ?? block[name];
}

function* placesOf(design: Design): Generator<Place> {
  const { site, types, listings } = design;
  yield* ofPart('site', site, ['name', 'strapline'], 'words');
  yield* ofPart('site', site.seo, ['title', 'description'], 'pattern', 'seo.');
  for (const type of types) yield* ofType(type);
  for (const listing of listings) yield* ofListing(listing);
  yield* ofTemplates(design);
}

function* ofTemplates({ templates }: Pick<Design, 'templates'>): Generator<Place> {
  for (const { id, blocks, slots } of templates)
    for (const block of blocksWithin([blocks, slots])) yield* ofBlock(`templates/${id}`, block);
}

/** Those of the properties of an owner that are texts. */
function* ofPart(
  part: string,
  owner: object | undefined,
  properties: readonly string[],
  sort: TextSort,
  before = '',
): Generator<Place> {
  const own = (owner ?? {}) as Record<string, unknown>;
  for (const name of properties) {
    const text = own[name];
    if (typeof text !== 'string') continue;
    const put = (said: string): void => void (own[name] = said);
    yield { part, property: before + name, sort, text, put };
  }
}

function* ofType(type: ContentType): Generator<Place> {
  const part = `types/${type.id}`;
  yield* ofPart(part, type, ['label', 'plural'], 'words');
  yield* ofPart(part, type, ['address'], 'address');
  yield* ofPart(part, type.seo, ['title', 'description'], 'pattern', 'seo.');
  yield* ofFields(part, type.fields);
}

function* ofFields(within: string, fields: readonly Field[]): Generator<Place> {
  for (const field of fields) {
    const part = `${within}/fields/${field.id}`;
    yield* ofPart(part, field, ['label', 'otherSide'], 'words');
    yield* ofPart(part, field, ['pattern'], 'pattern');
    for (const option of field.options ?? [])
      yield* ofPart(`${part}/options/${option.id}`, option, ['label'], 'words');
    yield* ofFields(part, field.fields ?? []);
  }
}

function* ofListing(listing: Design['listings'][number]): Generator<Place> {
  const part = `listings/${listing.id}`;
  yield* ofPart(part, listing, ['label', 'empty'], 'words');
  yield* ofPart(part, listing, ['address'], 'address');
  yield* ofPart(part, listing, ['intro'], 'pattern');
  yield* ofPart(part, listing.seo, ['title', 'description'], 'pattern', 'seo.');
  yield* ofPart(part, listing.each, ['title', 'description', 'intro'], 'pattern', 'each.');
  for (const order of listing.visitor?.orders ?? [])
    yield* ofPart(part, order, ['label'], 'words', `orders.${order.key}.`);
}

function* ofBlock(template: string, block: Block): Generator<Place> {
  const part = `${template}/blocks/${block.id ?? ''}`;
  for (const [name, sort] of OF_BLOCKS) {
    // Every language has the named forms of dates in its own way.
    if (name === 'format' && isDateStyle(String(block[name]))) continue;
    yield* ofPart(part, block, [name], sort);
  }
}
