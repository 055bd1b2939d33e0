import { directiveFromMarkdown } from 'mdast-util-directive';
import { directive } from 'micromark-extension-directive';
import type { Code, Construct, Effects, State } from 'micromark-util-types';

/** What texts hold besides Markdown's own, by how it is written. */
const INLINE = ['style', 'underline', 'picture'];
const LEAVES = ['::entry'];
const CONTAINERS = ['part', 'field', 'style'];

const COLON = 58;

/**
 * Directives of rich texts and no others: `:style[…]`, `::entry[…]`, `:::part[…]` and so on. Other
 * words behind a colon stay the words they are.
 */
export const DIRECTIVES = {
  extension: {
    text: { [COLON]: INLINE.map((name) => only([`:${name}`], construct('text', 0))) },
    flow: {
      [COLON]: [only(CONTAINERS, construct('flow', 0), 3), only(LEAVES, construct('flow', 1))],
    },
  },
  mdast: directiveFromMarkdown(),
  /** Where a colon would begin one: it is written so that it does not. */
  unsafe: [
    ...INLINE.map((name) => ({
      character: ':',
      after: `${name}\\[`,
      inConstruct: 'phrasing' as const,
    })),
    { atBreak: true, character: ':', after: ':' },
    ...['\r', '\n'].map((character) => ({
      character,
      inConstruct: ['leafDirectiveLabel' as const, 'containerDirectiveLabel' as const],
    })),
  ],
};

function construct(content: 'text' | 'flow', i: number): Construct {
  const all = directive()[content]?.[COLON];
  return [all].flat()[i]!;
}

/**
 * A construct that is tried only where one of these stands, with a label; `colons`: after at least
 * so many colons.
 */
function only(starts: readonly string[], wanted: Construct, colons = 0): Construct {
  const ahead: Construct = {
    partial: true,
    tokenize: (effects, ok, nok) => reader(starts, colons, effects, ok, nok),
  };
  return {
    ...wanted,
    tokenize(effects, ok, nok) {
      return effects.check(ahead, wanted.tokenize.call(this, effects, ok, nok), nok);
    },
  };
}

/** Reads colons, where wanted, and one of the starts with a bracket after it. */
function reader(
  starts: readonly string[],
  colons: number,
  effects: Effects,
  ok: State,
  nok: State,
): State {
  let seen = '';
  const next = (code: Code): State | undefined => {
    if (code === null || code < 0) return nok(code);
    if (colons > 0 && seen === '' && code === COLON) {
      count++;
      effects.consume(code);
      return next;
    }
    const letter = String.fromCodePoint(code);
    if (letter === '[' && starts.includes(seen) && count >= colons) {
      effects.exit('data');
      return ok(code);
    }
    seen += letter;
    if (!starts.some((start) => start.startsWith(seen))) return nok(code);
    effects.consume(code);
    return next;
  };
  let count = 0;
  return (code) => {
    effects.enter('data');
    return next(code);
  };
}
