import { mentionsIn } from '../design-edit/mentions.ts';
import { type Part, type PartPath, partAt, rootOf } from '../design-edit/parts.ts';
import { partsNamed } from '../design-edit/touches.ts';
import { blocksWithin } from '../design/block-ids.ts';
import { leadsAnywhere } from '../design/field-values.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { readKey } from './read-set.ts';

/** Blocks whose subjects lead to listings. */
const LED_BY_SUBJECTS: ReadonlySet<string> = new Set(['subjects', 'breadcrumbs']);

/** The read keys of pages that read something else of other designs than of this one. */
export function pagesReadingOtherwise(design: Design, others: readonly Design[]): string[] {
  const is = new PartsRead(design);
  const after = others.map((other) => new PartsRead(other));
  const differ = <P extends { id: string }>(
    parts: readonly P[],
    read: (of: PartsRead, id: string) => string,
    key: (id: string) => string,
  ): string[] =>
    parts
      .filter(({ id }) => after.some((other) => read(other, id) !== read(is, id)))
      .map(({ id }) => key(id));
  return [
    ...differ(design.types, (of, id) => of.ofEntries(id), readKey.designOfType),
    ...differ(design.listings, (of, id) => of.ofListing(id), readKey.designOfListing),
  ];
}

/**
 * What pages read of a design, as texts: where it is the same in two designs, and the content is,
 * the pages are the same. It says rather too much than too little.
 */
export class PartsRead {
  private readonly named = new Map<PartPath, Set<PartPath>>();
  private readonly texts = new Map<string, string>();
  private rest: string | null = null;

  constructor(private readonly design: Design) {
    for (const mention of mentionsIn(design))
      for (const path of partsNamed(design, mention)) this.note(mention.part, path);
    for (const type of design.types) this.noteReferences(type);
    for (const template of design.templates) this.noteSubjects(template);
  }

  /** What the pages of a type's entries read, by its id. */
  ofEntries(type: string): string {
    return this.remembered(`entries ${type}`, [`types/${type}`], `types/${type}`);
  }

  /** What the pages of a listing read, by its id. */
  ofListing(listing: string): string {
    return this.remembered(`listing ${listing}`, [`listings/${listing}`], null);
  }

  /** What stands where no entry and no listing does reads: anything may. */
  ofRest(): string {
    return (this.rest ??= JSON.stringify(this.design));
  }

  private note(part: PartPath, path: PartPath): void {
    const [from, to] = [rootOf(part), rootOf(path)];
    if (from !== to) this.named.set(from, (this.named.get(from) ?? new Set()).add(to));
  }

  /** A reference of no type named may lead to all of them. */
  private noteReferences({ id, fields }: ContentType): void {
    if (!fields.some(leadsAnywhere)) return;
    for (const other of this.design.types) this.note(`types/${id}`, `types/${other.id}`);
  }

  /** Subjects lead to the listings that show what has them. */
  private noteSubjects({ id, blocks, slots }: Design['templates'][number]): void {
    const shows = [...blocksWithin([blocks, slots])].some(({ block }) =>
      LED_BY_SUBJECTS.has(block),
    );
    if (!shows) return;
    for (const listing of this.design.listings)
      this.note(`templates/${id}`, `listings/${listing.id}`);
  }

  private remembered(name: string, start: PartPath[], own: PartPath | null): string {
    let text = this.texts.get(name);
    if (text === undefined) this.texts.set(name, (text = this.textOf(start, own)));
    return text;
  }

  /** All that is reached from some parts, and what stands around every page. */
  private textOf(start: PartPath[], own: PartPath | null): string {
    const { site, listings, styles, languages } = this.design;
    const found = new Set<PartPath>([...start, 'site', 'style']);
    for (const path of found) for (const next of this.reachedFrom(path, own)) found.add(next);
    const read = [...found].sort().map((path) => [path, this.seen(path, own)]);
    // Which listing stands where decides where addresses lead; without a frame of its own a site
    // has a menu of them on every page.
    const inMenu = site.frame === undefined;
    const led = listings.map(({ id, address, label, seo }) =>
      inMenu ? [id, address, label, seo.index] : [id, address],
    );
    return JSON.stringify([read, site, styles, led, languages]);
  }

  /** From outside, a type leads on by its card and its fields alone. */
  private *reachedFrom(path: PartPath, own: PartPath | null): Generator<PartPath> {
    const hidden = path.startsWith('types/') && path !== own ? this.ofPagesAlone(path) : null;
    for (const next of this.named.get(path) ?? []) if (!hidden?.has(next)) yield next;
  }

  private ofPagesAlone(path: PartPath): Set<PartPath> {
    const type = partAt(this.design, path) as unknown as ContentType;
    const card = this.design.templates.find((t) => t.key === type.card)?.id;
    const all = [...(this.named.get(path) ?? [])];
    return new Set(
      all.filter((next) => next !== `templates/${card}` && !next.startsWith('types/')),
    );
  }

  /** What is seen of a part: of types but one's own not what is for their pages alone. */
  private seen(path: PartPath, own: PartPath | null): unknown {
    const part = partAt(this.design, path);
    if (!path.startsWith('types/') || path === own || !part) return part;
    const { seo: _s, template: _t, templates: _o, frame: _f, ...more } = part as Part;
    const { clash: _c, retired: _r, ...rest } = more;
    return rest;
  }
}
