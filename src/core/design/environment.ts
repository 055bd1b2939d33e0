import {
  type Environment,
  type Member,
  type ObjectType,
  type Scope,
  type ValueType,
  one,
} from '../pattern/types.ts';
import type { Field } from './field.ts';
import { targetOf } from './field-values.ts';
import { compilePattern } from '../pattern/compile.ts';
import { isDerived, readsOwnAlone } from './computed.ts';
import { kindOf } from './kinds/index.ts';
import { LINK, NOT_IN_ADDRESS } from './link-value.ts';
import { inOrder, orderOf } from './other-order.ts';
import { type OtherSide, otherSideId, otherSidesOf } from './other-sides.ts';
import { plainMember, reader } from './members.ts';
import { shownAuthor, shownDate } from './presets.ts';
import type { SiteScope } from './site-scope.ts';
import type { ContentType, Design, Template } from './spec.ts';
import { isAroundPages } from './template-kind.ts';
import { type EntryView, type Subject, nameOf } from './values.ts';

/** What the entry of a single type is called in patterns, after `site.`: `clubRules`. */
export function singleName(key: string): string {
  return key.replace(/-+([A-Za-z0-9])/g, (_, c: string) => c.toUpperCase()).replaceAll('-', '');
}

const site = (scope: Scope): SiteScope => scope as SiteScope;
const object = (type: ObjectType, many = false): ValueType => ({
  kind: 'object',
  many,
  object: type,
});

/**
 * Builds the environments of a design's patterns; object types are made once and may refer to
 * each other.
 */
export class Environments {
  private readonly objects = new Map<string, ObjectType>();
  private readonly roots: Map<string, Member>;

  constructor(readonly design: Design) {
    this.roots = new Map([
      ['site', plainRoot(this.siteObject())],
      ['locale', { type: () => one('text'), read: (_, scope) => scope.language }],
    ]);
  }

  /** The site: what holds for all of it, and the entries of its single types. */
  private siteObject(): ObjectType {
    const singles = this.design.types.filter((type) => type.single);
    if (singles.length === 0) return SITE;
    const members = new Map<string, Member>(
      SITE.memberNames().map((name) => [name, SITE.member(name)!]),
    );
    for (const type of singles) members.set(singleName(type.key), this.single(type));
    return objectType(SITE.name, members);
  }

  private single(type: ContentType): Member {
    return {
      type: () => object(this.objectOf(type)),
      read: (_, scope) => site(scope).single(type.key),
      single: type.id,
      notInAddress: 'it may change at any time, and with it every address that reads it',
    };
  }

  /** For patterns of a content type: its fields, `entry`, `site`, `within` and `locale`. */
  ofType(type: ContentType): Environment {
    const roots = new Map(this.roots);
    roots.set('entry', plainRoot(META));
    const within = type.fields.find((f) => f.sitsWithin);
    if (within) {
      roots.set('within', this.member(within, pathOf(type, within)));
    }
    return { own: this.objectOf(type), roots };
  }

  /** For patterns of a listing: `site`, `page`, `value` and `locale`. */
  ofListing(): Environment {
    const own = [
      ['page', plainRoot(PAGE)],
      ['value', plainRoot(VALUE)],
    ] as const;
    return { own: null, roots: new Map([...this.roots, ...own]) };
  }

  /** For patterns of the frame. */
  ofFrame(): Environment {
    return { own: null, roots: this.roots };
  }

  /** For patterns of a template: of the type that it reads, else of what it stands around. */
  ofTemplate(kind: Template['kind'], type: ContentType | null): Environment {
    if (type) return this.ofType(type);
    return isAroundPages(kind) ? this.ofFrame() : this.ofListing();
  }

  /** A type's entries as objects: their fields, then `path`, `url` and `entry`. */
  objectOf(type: ContentType): ObjectType {
    let found = this.objects.get(type.key);
    if (!found) {
      const members = new Map<string, Member>(
        type.fields.map((field) => [
          field.key,
          named(this.memberOf(field, type), field, pathOf(type, field)),
        ]),
      );
      for (const side of otherSidesOf(type, this.design))
        if (!members.has(side.name)) members.set(side.name, this.otherSide(side));
      for (const [name, extra] of Object.entries(ENTRY_EXTRAS))
        if (!members.has(name)) members.set(name, extra);
      found = objectType(type.label.toLowerCase(), members, type.naming);
      this.objects.set(type.key, found);
    }
    return found;
  }

  /** The entries whose reference leads to an entry: one where no two lead to the same. */
  private otherSide(side: OtherSide): Member {
    const { type, field } = side;
    const id = otherSideId(side);
    const many = !field.unique;
    return {
      type: () => object(this.objectOf(type), many),
      read: (owner, scope) => {
        const { id: entry, values } = owner as EntryView;
        const found = inOrder(site(scope).referring(id, entry), orderOf(values, id));
        return many ? found : (found[0] ?? null);
      },
      otherSide: { type: type.id, field: field.id, many },
      label: field.otherSide ?? side.name,
      notInAddress: 'it is decided by other entries',
    };
  }

  /** The member of a type's field; of a computed one that reads others, what works it out. */
  private memberOf(field: Field, type: ContentType): Member {
    if (!isDerived(field) || readsOwnAlone(field, type.fields))
      return this.member(field, pathOf(type, field));
    const read = followed(() => compilePattern(field.pattern ?? '', this.ofType(type), 'metadata'));
    return {
      type: () => one('text'),
      read,
      field: field.id,
      notInAddress: 'it is worked out from more than the entry itself',
    };
  }

  /** The member a field is, which stands at a path of the design. */
  private member(field: Field, path: string): Member {
    const { id, many } = field;
    const target = targetOf(field);
    if (target?.of === 'entries') {
      const read = (v: unknown, scope: Scope): unknown => site(scope).entry(String(v));
      return {
        type: () => object(this.referenced(target.types), many),
        read: reader(id, many, read),
        field: id,
        reference: true,
      };
    }
    if (target?.of === 'subjects') {
      const read = (v: unknown, scope: Scope): unknown =>
        site(scope).subject(target.set, String(v));
      const all = reader(id, many, read);
      return { type: () => object(SUBJECT, many), read: many ? eachOnce(all) : all, field: id };
    }
    if (target?.of === 'media')
      return {
        type: () => ({ kind: 'media', many }),
        read: reader(id, many, (v, scope) => site(scope).media(String(v))),
        field: id,
      };
    if (target?.of === 'link' || target?.of === 'group')
      return this.composed(field, target.of, path);
    return plainMember(field);
  }

  /** A value that has parts of its own. */
  private composed(field: Field, of: 'link' | 'group', path: string): Member {
    const { id, many } = field;
    const type = of === 'link' ? LINK : this.groupObject(field, path);
    const owner = (value: unknown): unknown => (of === 'link' ? value : { values: value });
    return {
      type: () => object(type, many),
      read: reader(id, many, owner),
      field: id,
      notInAddress: of === 'link' ? NOT_IN_ADDRESS : 'a group is more than one value',
    };
  }

  /** What stands in a group as an object: its fields; the first that names stands for it. */
  private groupObject({ label, fields = [] }: Field, path: string): ObjectType {
    const members = new Map<string, Member>(
      fields.map((inner) => {
        const part = `${path}/fields/${inner.id}`;
        return [inner.key, named(this.member(inner, part), inner, part)];
      }),
    );
    const naming = fields.find((f) => kindOf(f).names) ?? fields[0];
    return objectType(label.toLowerCase(), members, naming?.key);
  }

  private referenced(keys: readonly string[] | null): ObjectType {
    const types = this.design.types.filter((t) => keys?.includes(t.key) ?? true);
    if (types.length === 1) return this.objectOf(types[0]!);
    const all = types.map((t) => this.objectOf(t));
    return {
      name: types.map((t) => t.label.toLowerCase()).join(' or ') || 'the entry',
      memberNames: () => all[0]?.memberNames().filter((n) => all.every((o) => o.member(n))) ?? [],
      member: (name) => common(types, all, name),
      naming: '',
    };
  }
}

/**
 * A member that every one of several types has, with the same kind; reads by the entry's own
 * type.
 */
function common(types: ContentType[], all: ObjectType[], name: string): Member | undefined {
  const members = all.map((o, i) => o.member(name === '' ? types[i]!.naming : name));
  const first = members[0];
  if (!first || members.some((m) => !m || m.type().kind !== first.type().kind)) return undefined;
  return {
    ...first,
    ...(first.parts ? { parts: members.flatMap((m) => m?.parts ?? []) } : {}),
    read: (owner, scope) =>
      members[types.findIndex((t) => t.key === (owner as EntryView).type.key)]?.read(
        owner,
        scope,
      ) ?? null,
  };
}

/**
 * Reads a value that is worked out anew each time, from its owner and what that leads to. Computed
 * fields do not read each other, so it comes to an end.
 */
function followed(compile: () => ReturnType<typeof compilePattern>): Member['read'] {
  let pattern: ReturnType<typeof compilePattern>['pattern'] | undefined;
  let isReading = false;
  return (owner, scope) => {
    pattern ??= compile().pattern;
    if (!pattern || isReading) return null;
    isReading = true;
    try {
      return pattern.text(Object.create(scope, { own: { value: owner }, steps: STEPS }) as Scope);
    } finally {
      isReading = false;
    }
  };
}

const STEPS = { value: 0, writable: true };

/** Where a field of a type stands in the design. */
function pathOf(type: ContentType, field: Field): string {
  return `types/${type.id}/fields/${field.id}`;
}

function named(member: Member, { label }: Field, path: string): Member {
  return { ...member, label, parts: [path] };
}

function objectType(name: string, members: Map<string, Member>, naming?: string): ObjectType {
  return {
    name,
    member: (n) => members.get(n),
    memberNames: () => [...members.keys()],
    ...(naming === undefined ? {} : { naming }),
  };
}

function fromRecord(name: string, members: Record<string, Member>, naming?: string): ObjectType {
  return objectType(name, new Map(Object.entries(members)), naming);
}

function plainRoot(type: ObjectType): Member {
  return { type: () => object(type), read: (owner) => owner };
}

const get = (
  kind: 'text' | 'number' | 'datetime' | 'path',
  read: (o: never) => unknown,
  notInAddress?: string,
): Member => ({
  type: () => one(kind),
  read: (o) => read(o as never) ?? null,
  ...(notInAddress === undefined ? {} : { notInAddress }),
});

const path: Member = {
  type: () => one('path'),
  read: (o, scope) => site(scope).pathOf(o as EntryView),
};
const url: Member = {
  type: () => one('text'),
  read: (o, scope) => scope.urlOf(o),
  notInAddress: 'it is made of the address itself',
};

const META = fromRecord(
  'the entry',
  {
    name: get('text', nameOf),
    id: get('text', (e: EntryView) => e.id),
    // Labels are words that change; an address takes the key.
    type: {
      type: () => one('text'),
      read: (e, scope) => (scope.address ? (e as EntryView).type.key : (e as EntryView).type.label),
    },
    created: get('datetime', (e: EntryView) => e.created),
    published: get('datetime', (e: EntryView) => e.published),
    updated: get('datetime', (e: EntryView) => e.updated, 'it changes with every publication'),
    author: get('text', (e: EntryView) => e.author, 'people’s names change'),
    shownAuthor: get('text', shownAuthor, 'people’s names change'),
    shownDate: get('datetime', shownDate, 'it may change with every publication'),
    state: get('text', (e: EntryView) => e.state, 'it changes with time'),
    path,
    url,
  },
  'name',
);

const ENTRY_EXTRAS: Record<string, Member> = {
  path,
  url,
  entry: { type: () => object(META), read: (o) => o },
};

const SUBJECT = fromRecord(
  'a subject',
  {
    name: get('text', (s: Subject) => s.name),
    slug: get('text', (s: Subject) => s.slug),
    description: get('text', (s: Subject) => s.description),
    key: get('text', (s: Subject) => s.key),
    picture: {
      type: () => ({ kind: 'media', many: false }),
      read: (s, scope) => {
        const { picture } = s as Subject;
        return picture === null ? null : site(scope).media(picture);
      },
    },
    parent: {
      type: () => object(SUBJECT),
      read: (s, scope) => parentOf(s as Subject, site(scope)),
    },
  },
  'name',
);

/** Subjects that were merged stand for one: it is there once. */
function eachOnce(read: Member['read']): Member['read'] {
  return (owner, scope) => {
    const seen = new Set<string>();
    return (read(owner, scope) as Subject[]).filter(({ key }) => !seen.has(key) && seen.add(key));
  };
}

function parentOf(subject: Subject, scope: SiteScope): Subject | null {
  return subject.parent === null ? null : scope.subject(subject.set, subject.parent);
}

type SiteRoot = { name: string; url: string; strapline: string };
const SITE = fromRecord('the site', {
  name: get('text', (s: SiteRoot) => s.name),
  url: get('text', (s: SiteRoot) => s.url),
  strapline: get('text', (s: SiteRoot) => s.strapline),
});

type ValueRoot = { key: string; name: string; description: string; path: string; count: number };
const VALUE = fromRecord(
  'the value',
  {
    name: get('text', (v: ValueRoot) => v.name),
    description: get('text', (v: ValueRoot) => v.description),
    path: get('path', (v: ValueRoot) => v.path),
    count: get('number', (v: ValueRoot) => v.count),
  },
  'name',
);

type PageRoot = { number: number; count: number; url: string };
const PAGE = fromRecord('the page', {
  number: get('number', (p: PageRoot) => p.number),
  count: get('number', (p: PageRoot) => p.count),
  url: get('text', (p: PageRoot) => p.url),
});
