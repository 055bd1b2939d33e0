import { type Result, ok, refused } from '../issue.ts';
import { type Design, designSpec } from '../design/spec.ts';
import { singleName } from '../design/environment.ts';
import { type NameUse, namesIn, withRanges } from '../pattern/names.ts';
import { type Mention, mentionsIn } from './mentions.ts';
import { type PartPath, partAt } from './parts.ts';
import { put } from './properties.ts';

/** What names the parts of a sort where they are named by their key alone. */
const NAMED_AS: Partial<Record<string, Mention['holds']>> = {
  types: 'type',
  listings: 'listing',
  templates: 'template',
  subjectSets: 'set',
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
  const [root, rootId, sort, id, inner] = path.split('/');
  if (sort === undefined && root === 'types' && HAS_PATTERN.has(mention.holds))
    return singleRenamed(mention, rootId!, now);
  if (sort === undefined)
    return mention.holds === NAMED_AS[root!] && mention.text === was ? now : mention.text;
  if (inner === undefined && mention.holds === 'pattern')
    return patternWith(mention, mention.text, rootId!, id!, now);
  if (inner === undefined && mention.holds === 'expression')
    return patternWith(mention, `{${mention.text}}`, rootId!, id!, now).slice(1, -1);
  if (mention.type?.id !== rootId || mention.text !== was) return mention.text;
  if (inner === undefined) return mention.holds === 'field' ? now : mention.text;
  const isOption = mention.holds === 'option' && fieldId(mention) === id;
  return isOption ? now : mention.text;
}

/** What holds patterns, whole or without their braces. */
const HAS_PATTERN: ReadonlySet<Mention['holds']> = new Set(['pattern', 'expression']);

/** A pattern that reads the entry of a single type by the type's new key. */
function singleRenamed(mention: Mention, type: string, key: string): string {
  const isBare = mention.holds === 'expression';
  const source = isBare ? `{${mention.text}}` : mention.text;
  const text = everywhere(mention, source, ({ member }) => member.single === type, singleName(key));
  return isBare ? text.slice(1, -1) : text;
}

function fieldId({ type, field }: Mention): string | undefined {
  return type?.fields.find((f) => f.key === field)?.id;
}

/** A pattern with one field of a type named anew, where every reader takes it for that field. */
function patternWith(
  mention: Mention,
  source: string,
  type: string,
  field: string,
  key: string,
): string {
  const isIt = ({ member }: NameUse): boolean =>
    member.field === field && member.owners?.join() === type;
  return everywhere(mention, source, isIt, key);
}

/** A pattern with names in it replaced, where every reader takes them for what is meant. */
function everywhere(
  { environments }: Mention,
  source: string,
  isIt: (use: NameUse) => boolean,
  by: string,
): string {
  const uses = environments.map((env) => namesIn(source, env).filter(isIt));
  const shared = (uses[0] ?? []).filter(({ range }) =>
    uses.every((other) => other.some((use) => use.range.start === range.start)),
  );
  return withRanges(
    source,
    shared.map(({ range }) => ({ range, by })),
  );
}
