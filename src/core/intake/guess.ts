import type { Field } from '../design/field.ts';
import { targetOf, valueKindOf } from '../design/field-values.ts';
import { kindOf } from '../design/kinds/index.ts';
import type { ContentType } from '../design/spec.ts';
import type { KeySeen, Seen } from './look.ts';
import { type Mapping, mappingSpec } from './mapping.ts';
import { OWN_KEYS } from './record.ts';

const plain = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/** Names under which other tools keep what has a place of its own. */
const TITLES = ['title', 'name', 'heading', 'headline', 'label', 'titel', 'nom', 'titre'];
const DATES = ['date', 'published', 'publishdate', 'pubdate', 'created', 'createdat', 'datum'];
const AUTHORS = ['author', 'authors', 'by', 'byline', 'writer', 'writtenby', 'creator', 'autor'];
const DRAFTS = ['draft', 'isdraft', 'entwurf'];
const ADDRESSES = ['slug', 'url', 'permalink', 'path', 'address', 'link'];
const IDS = ['id', 'guid', 'uuid', 'key'];
const BODIES = ['body', 'content', 'text', 'html', 'markdown', 'inhalt'];
const SUMMARIES = ['summary', 'excerpt', 'description', 'abstract', 'intro', 'teaser', 'lead'];
const TAGS = ['tags', 'tag', 'keywords', 'labels', 'topics', 'schlagworte'];
const CATEGORIES = ['category', 'categories', 'section', 'kategorie'];
const PICTURES = [
  'image',
  'picture',
  'cover',
  'thumbnail',
  'photo',
  'featuredimage',
  'hero',
  'bild',
];

/**
 * A mapping that names and values suggest: keys that are called like a field, or like what a field
 * is for, become that field; each field comes of one key. What is not understood is left out.
 */
export function guessMapping(seen: Seen, type: ContentType): Mapping {
  const guess = new Guess(seen, type);
  guess.fields();
  guess.places();
  const { days, decimals } = seen;
  return mappingSpec.parse({
    type: type.key,
    fields: guess.found,
    days: days ?? 'dmy',
    decimals: decimals ?? 'point',
  });
}

class Guess {
  readonly found: Record<string, string> = {};
  private readonly free: Map<string, Field>;

  constructor(
    private readonly seen: Seen,
    private readonly type: ContentType,
  ) {
    const written = type.fields.filter((f) => !kindOf(f).derived);
    this.free = new Map(written.map((f) => [f.key, f]));
  }

  /** By the same name first, then by what keys and fields are for. */
  fields(): void {
    const { type, seen } = this;
    const isCalled = (name: string) => (f: Field) =>
      [f.key, f.label].some((own) => plain(own) === plain(name));
    for (const key of seen.keys) this.take(key, isCalled(key.name));
    const own = (name: string): KeySeen[] => seen.keys.filter((key) => key.name === name);
    const each = (keys: readonly KeySeen[], ...fits: ((field: Field) => boolean)[]): void => {
      for (const key of keys) fits.some((fit) => this.take(key, fit));
    };
    const isKind =
      (...kinds: string[]) =>
      (f: Field): boolean =>
        kinds.includes(f.kind);
    each([...this.named(TITLES), ...own(OWN_KEYS.heading)], (f) => f.key === type.naming);
    // A heading names what nothing else does.
    if (own(OWN_KEYS.heading).length > 0) this.found[OWN_KEYS.heading] ??= type.naming;
    each([...own(OWN_KEYS.body), ...this.named(BODIES)], isKind('richtext'), isKind('paragraphs'));
    each(this.named(SUMMARIES), (f) => f.key === type.summary, isKind('paragraphs'));
    each(this.named(TAGS), isKind('tags'));
    each(this.named(CATEGORIES), isKind('category'));
    each(this.named(PICTURES), (f) => valueKindOf(f) === 'media');
    each(this.named(DATES), isKind('date', 'datetime'));
    for (const key of seen.keys)
      this.take(
        key,
        (f) => targetOf(f)?.of === 'entries' && plain(key.name).startsWith(plain(f.key)),
      );
  }

  /** What stands besides the fields, of the keys that are left. */
  places(): void {
    const put = (names: readonly string[], to: string): void => {
      const key = this.named(names).find(({ name }) => this.found[name] === undefined);
      if (key) this.found[key.name] = to;
    };
    put(DATES, '@created');
    put(AUTHORS, '@author');
    put(DRAFTS, '@draft');
    put(IDS, '@id');
    put(ADDRESSES, '@address');
  }

  private named(names: readonly string[]): KeySeen[] {
    return this.seen.keys.filter((key) => names.includes(plain(key.name)));
  }

  /** Lets a key become the first free field that fits; whether one did. */
  private take({ name }: KeySeen, fits: (field: Field) => boolean): boolean {
    const field = [...this.free.values()].find(fits);
    if (!field || this.found[name] !== undefined) return false;
    this.free.delete(field.key);
    this.found[name] = field.key;
    return true;
  }
}
