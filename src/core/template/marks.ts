import type { Render } from './context.ts';

/**
 * Draws a block between comments that name it, for previews; nothing where it draws nothing. An id
 * stands in them as a comment takes it (WHATWG HTML, 13.1.6).
 */
export function marked(id: string, render: Render): Render {
  const whole = id.replace(/\p{Surrogate}/gu, '\uFFFD'); // halves of a character have no bytes
  const name = encodeURIComponent(whole).replaceAll('-', '%2D');
  return (scope) => {
    const html = render(scope);
    return html === '' ? '' : `<!--block ${name}-->${html}<!--/block ${name}-->`;
  };
}

/** What each block drew first, as HTML, by its id: of those that drew something. */
export function drawnByBlocks(html: string): Map<string, string> {
  const begun: { id: string; from: number }[] = [];
  const drawn = new Map<string, string>();
  for (const { 0: mark, 1: end, 2: name, index } of html.matchAll(MARK)) {
    const id = decodeURIComponent(name!);
    if (end === '') begun.push({ id, from: index + mark.length });
    else {
      const { from } = begun.pop()!;
      if (!drawn.has(id)) drawn.set(id, html.slice(from, index).replace(MARK, ''));
    }
  }
  return drawn;
}

const MARK = /<!--(\/?)block ([\w%.!~*'()]+)-->/g;
