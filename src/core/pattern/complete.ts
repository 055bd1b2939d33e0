import { FUNCTIONS } from './functions/index.ts';
import { type Environment, type Member, type ObjectType, typeInWords } from './types.ts';

/** Something that can stand where an expression is being written. */
export interface Completion {
  /** What takes the place of the word that is being written. */
  insert: string;
  /** What it is called on screens; '' where that is its name. */
  label: string;
  /** What it gives, in words: "a date", "a grower". */
  gives: string;
  /** The whole expression that would stand there; null for a function. */
  expression: string | null;
}

/** What can stand at a place of a pattern, and which stretch of it that takes, in UTF-16 units. */
export interface Completions {
  from: number;
  to: number;
  offers: Completion[];
}

const MOST = 40;

/**
 * What can be written at the caret of a pattern, those that begin as the word there first; null
 * outside of braces and within quotes.
 */
export function completeAt(
  source: string,
  caret: number,
  { own, roots }: Environment,
  inAddress = false,
): Completions | null {
  if (!isInExpression(source.slice(0, caret))) return null;
  const [written] = /[\p{L}_][\w.]*$|$/u.exec(source.slice(0, caret))!;
  const names = written.split('.');
  const word = names.pop()!;
  const to = caret + /^\w*/.exec(source.slice(caret))![0].length;
  const before = names.length === 0 ? '' : `${names.join('.')}.`;
  const members = names.length === 0 ? [...ownOf(own), ...roots] : ownOf(ledTo(names, own, roots));
  const offers = members
    .filter(([, { notInAddress }]) => !inAddress || notInAddress === undefined)
    .map(([name, member]): Completion => {
      const { label = '' } = member;
      const gives = typeInWords(member.type());
      return { insert: name, label, gives, expression: before + name };
    });
  const functions = names.length === 0 ? functionOffers() : [];
  return { from: caret - word.length, to, offers: fitting([...offers, ...functions], word) };
}

function ownOf(object: ObjectType | null | undefined): [string, Member][] {
  return (object?.memberNames() ?? []).map((name) => [name, object!.member(name)!]);
}

/** The object that a chain of names leads to. */
function ledTo(
  names: readonly string[],
  own: ObjectType | null,
  roots: Environment['roots'],
): ObjectType | undefined {
  const [first = '', ...rest] = names;
  let at = (own?.member(first) ?? roots.get(first))?.type().object;
  for (const name of rest) at = at?.member(name)?.type().object;
  return at;
}

const functionOffers = (): Completion[] =>
  [...FUNCTIONS.values()].map(({ name, doc }) => ({
    ...{ insert: `${name}(`, label: '', gives: doc, expression: null },
  }));

/** Those that begin with a word, then those that have it within their name or label. */
function fitting(offers: readonly Completion[], word: string): Completion[] {
  const wanted = word.toLowerCase();
  const rank = ({ insert, label }: Completion): number =>
    insert.toLowerCase().startsWith(wanted)
      ? 0
      : `${insert} ${label}`.toLowerCase().includes(wanted)
        ? 1
        : 2;
  return offers
    .map((offer) => ({ offer, at: rank(offer) }))
    .filter(({ at }) => at < 2)
    .sort((a, b) => a.at - b.at)
    .map(({ offer }) => offer)
    .slice(0, MOST);
}

/** Whether text ends within braces, and not within quotes there. */
function isInExpression(text: string): boolean {
  let isOpen = false;
  let isQuoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!;
    if (isQuoted && c === '\\') i++;
    else if (isOpen && c === '"') isQuoted = !isQuoted;
    else if (isQuoted) continue;
    else if (!isOpen && c === '{' && text[i + 1] === '{') i++;
    else if (c === '{') isOpen = true;
    else if (c === '}') isOpen = false;
  }
  return isOpen && !isQuoted;
}
