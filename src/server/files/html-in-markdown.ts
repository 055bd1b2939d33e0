import type { Element, Root as Tree } from 'hast';
import { raw } from 'hast-util-raw';
import { type Handle, defaultHandlers, toMdast } from 'hast-util-to-mdast';
import type { Nodes, PhrasingContent, Root } from 'mdast';
import { toHast } from 'mdast-util-to-hast';
import { VFile } from 'vfile';
import type { MarkdownFinding } from './markdown-world.ts';

/** More than this is no text that people wrote. */
const MOST_TAGS = 20_000;

type Tell = (finding: MarkdownFinding) => void;

/**
 * A text in which HTML stands for what it means: words in bold, pictures, links, tables, lists.
 * What has no such meaning leaves its words; comments go. It is told what leaves nothing.
 */
export function withoutHtml(root: Root, source: string, tell: Tell): Root {
  const found = htmlOf(root);
  if (found.length === 0) return root;
  const line = found[0]!.position?.start.line ?? 1;
  const tags = found.reduce((sum, { value }) => sum + value.split('<').length - 1, 0);
  if (tags > MOST_TAGS) {
    tell({ line, words: `A text has at most ${MOST_TAGS} tags of HTML; they stay as words.` });
    return root;
  }
  try {
    const written = toHast(root, { allowDangerousHtml: true }) as Tree;
    // Words in a table that nobody closes are only let out by what follows them.
    written.children.push({ type: 'comment', value: 'end' });
    const tree = raw(written, { file: new VFile(source) }) as Tree;
    prune(tree, tell);
    return toMdast(tree, { document: true, handlers: HANDLERS }) as Root;
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    tell({ line, words: 'The HTML of this text nests too deep; it stays as words.' });
    return root;
  }
}

type Html = Extract<Nodes, { type: 'html' }>;

function htmlOf(root: Root): Html[] {
  const found: Html[] = [];
  const left: Nodes[] = [root];
  for (let node = left.pop(); node; node = left.pop()) {
    if (node.type === 'html') found.push(node);
    if ('children' in node) left.push(...node.children);
  }
  return found;
}

/** Elements of which nothing can stand in a text. */
const LEFT_OUT = new Set([
  ...['script', 'style', 'svg', 'math', 'embed', 'input', 'select', 'template', 'title'],
]);
/** Elements that say something though they hold nothing. */
const SAY = new Set(['audio', 'br', 'hr', 'iframe', 'img', 'td', 'th', 'video']);

/**
 * Takes out comments, what cannot stand, which is told, and elements that hold nothing: white space
 * is weighed without heed of them, and each would cost a look at all that come after.
 */
function prune(node: Element | Tree, tell: Tell): void {
  const kept: Element['children'] = [];
  const keep = (child: Element['children'][number]): void => {
    const last = kept.at(-1);
    if (child.type === 'text' && last?.type === 'text') last.value += child.value;
    else kept.push(child);
  };
  for (const child of node.children) {
    if (child.type === 'text') keep(child);
    if (child.type !== 'element') continue;
    const { tagName, position } = child;
    if (LEFT_OUT.has(tagName)) {
      tell({ line: position?.start.line ?? 1, words: `HTML <${tagName}> is left out.` });
      continue;
    }
    prune(child, tell);
    const isBlank = child.children.every((c) => c.type === 'text' && c.value.trim() === '');
    if (isBlank && !SAY.has(tagName)) child.children.forEach(keep);
    else kept.push(...captioned(child));
  }
  node.children = kept;
}

/** A table after its caption; anything else as it is. */
function captioned(element: Element): Element[] {
  const captions = element.children.filter(
    (child): child is Element => child.type === 'element' && child.tagName === 'caption',
  );
  return [...captions.map((caption) => ({ ...caption, tagName: 'p' })), element];
}

const words: Handle = (state, element: Element) => state.all(element);
const underlined: Handle = (state, element: Element) => ({
  type: 'textDirective',
  name: 'underline',
  attributes: {},
  children: state.all(element) as PhrasingContent[],
});

/** What is only led to, by a name that is gone here, is no link. */
const linked: Handle = (state, element: Element) =>
  (element.properties.href === undefined ? words : defaultHandlers.a)(state, element, undefined);

const framed: Handle = (_, { properties }: Element) => {
  const url = String(properties.src ?? '');
  const named: PhrasingContent = { type: 'text', value: String(properties.title ?? url) };
  return { type: 'link', url, children: [named] };
};

/** What elements become that are not what one would make of them elsewhere. */
const HANDLERS: Record<string, Handle> = {
  a: linked,
  iframe: framed,
  ins: underlined,
  u: underlined,
  // Their words stay.
  dialog: words,
  menu: words,
  noembed: words,
  noframes: words,
  textarea: words,
};
