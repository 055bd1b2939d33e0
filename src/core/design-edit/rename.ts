import { type Result, ok, refused } from '../issue.ts';
import { type Design, designSpec } from '../design/spec.ts';
import { singleName } from '../design/environment.ts';
import { type NameUse, namesIn, withRanges } from '../pattern/names.ts';
import { type Mention, mentionsIn } from './mentions.ts';
import { type PartPath, outerOf, partAt } from './parts.ts';
import { put } from './properties.ts';

/** What names the parts of a sort where they are named by their key alone. */
const NAMED_AS: Partial<Record<string, Mention['holds']>> = {
  types: 'type',
  listings: 'listing',
  templates: 'template',
  subjectSets: 'set',
  picks: 'picks',
  textForms: 'form',
  styles: 'style',
};

/**
 * A design in which a part has another key, and everything that named it by the former one names
 * it by the new one: patterns are changed at the name alone.
 */
export function renamed(design: Design, path: PartPath, key: string): Result<Design> {
  const part = partAt(design, path);
  if (part?.key === undefined)
    return refused({
      code: 'no-key',
      path,
      message: 'This has no key of its own.',
      fix: 'Change one of its properties instead.',
    });
  const texts = mentionsIn(design).flatMap((mention) => {
    const text = renamedIn(mention, path, part.key!, key);
    return text === mention.text ? [] : [{ ...mention, text }];
  });
  const changed = structuredClone(design);
  partAt(changed, path)!.key = key;
  for (const { part: at, property, text } of texts) put(partAt(changed, at)!, property, text);
  const parsed = designSpec.safeParse(changed);
  if (parsed.success) return ok(parsed.data);
  const issues = parsed.error.issues.map(({ message }) => ({ code: 'wrong-form', path, message }));
  return { ok: false, issues: issues.slice(0, 1) };
}

/** Whether a mention names a part by its key. */
export function names(mention: Mention, path: PartPath, key: string): boolean {
  return renamedIn(mention, path, key, `${key}_`) !== mention.text;
}

/** A mention's text with a part named anew; the same where it names another one, or none. */
function renamedIn(mention: Mention, path: PartPath, was: string, now: string): string {
  const { holds, text, within } = mention;
  const [root, rootId, sort] = path.split('/');
  if (HAS_PATTERN.has(holds)) {
    if (sort !== undefined) return everywhere(mention, ({ parts }) => parts?.join() === path, now);
    return root === 'types'
      ? everywhere(mention, ({ single }) => single === rootId, singleName(now))
      : text;
  }
  if (sort === undefined) return holds === NAMED_AS[root!] && text === was ? now : text;
  return `${holds}s` === path.split('/').at(-2) && within === outerOf(path) && text === was
    ? now
    : text;
}

/** What holds patterns, whole or without their braces. */
const HAS_PATTERN: ReadonlySet<Mention['holds']> = new Set(['pattern', 'expression']);

/** A pattern with names in it replaced, where every reader takes them for what is meant. */
function everywhere(
  { holds, text, environments }: Mention,
  isIt: (member: NameUse['member']) => boolean,
  by: string,
): string {
  const isBare = holds === 'expression';
  const source = isBare ? `{${text}}` : text;
  const uses = environments.map((env) => namesIn(source, env).filter(({ member }) => isIt(member)));
  const shared = (uses[0] ?? []).filter(({ range }) =>
    uses.every((other) => other.some((use) => use.range.start === range.start)),
  );
  const changed = withRanges(
    source,
    shared.map(({ range }) => ({ range, by })),
  );
  return isBare ? changed.slice(1, -1) : changed;
}
