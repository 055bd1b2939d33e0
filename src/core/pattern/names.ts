import type { TextRange } from '../issue.ts';
import { readPattern } from './read.ts';
import { type Expression, eachExpression } from './tree.ts';
import type { Environment, Member } from './types.ts';

/** A name in a pattern's text, and what it stands for. */
export interface NameUse {
  name: string;
  range: TextRange;
  member: Member;
}

/**
 * The names in a pattern that stand for fields or other members, in their order; roots such as
 * `site` and names that stand for nothing are left out.
 */
export function namesIn(source: string, env: Environment): NameUse[] {
  const uses: NameUse[] = [];
  eachExpression(readPattern(source).tree.parts, (e) => {
    if (e.kind === 'path') uses.push(...namesOf(e, env));
  });
  return uses;
}

function namesOf({ names }: Extract<Expression, { kind: 'path' }>, env: Environment): NameUse[] {
  const uses: NameUse[] = [];
  let owner: ((name: string) => Member | undefined) | undefined = (name) => env.own?.member(name);
  for (const [i, { name, range }] of names.entries()) {
    const root = i === 0 ? env.roots.get(name) : undefined;
    const member: Member | undefined = root ?? owner?.(name);
    if (!member) return uses;
    if (!root) uses.push({ name, range, member });
    const { object } = member.type();
    owner = object && ((next) => object.member(next));
  }
  return uses;
}

/** A text with ranges of it replaced; the rest is untouched. */
export function withRanges(text: string, changes: { range: TextRange; by: string }[]): string {
  const inOrder = [...changes].sort((a, b) => b.range.start - a.range.start);
  return inOrder.reduce(
    (result, { range, by }) => result.slice(0, range.start) + by + result.slice(range.end),
    text,
  );
}
