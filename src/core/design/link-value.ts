import type { Member, ObjectType, Scope } from '../pattern/types.ts';
import { one } from '../pattern/types.ts';
import type { LinkValue } from './field.ts';
import type { SiteScope } from './site-scope.ts';
import { type EntryView, nameOf } from './values.ts';

/** A link as it can be drawn: its words, and where it leads. */
interface ShownLink {
  words: string;
  href: string;
}

/** What a link shows; null where its entry is not live or has no page, as with references. */
export function shownLink(value: unknown, scope: Pick<SiteScope, 'entry' | 'pathOf'>) {
  const { entry: id, to, words } = value as LinkValue;
  if (id === undefined) return to === undefined ? null : { words: words ?? to, href: to };
  const entry: EntryView | null = scope.entry(id);
  const href = entry && scope.pathOf(entry);
  return entry && href !== null ? { words: words ?? nameOf(entry), href } : null;
}

/** Why no address reads a link. */
export const NOT_IN_ADDRESS = 'where a link leads may change at any time';

function part(of: keyof ShownLink, kind: 'text' | 'path'): Member {
  return {
    type: () => one(kind),
    read: (value, scope: Scope) => shownLink(value, scope as SiteScope)?.[of] ?? null,
    notInAddress: NOT_IN_ADDRESS,
  };
}

const MEMBERS = new Map<string, Member>([
  ['words', part('words', 'text')],
  ['url', part('href', 'path')],
]);

/** A link in patterns: `results.words` and `results.url`; its words stand for the link itself. */
export const LINK: ObjectType = {
  name: 'a link',
  naming: 'words',
  member: (name) => MEMBERS.get(name),
  memberNames: () => [...MEMBERS.keys()],
};
