import { Parser } from 'htmlparser2';
import { isSafeLink } from '../link.ts';
import { readPattern } from '../pattern/read.ts';
import { escapeHtml } from '../text.ts';
import type { BlockCompiler, Render, RenderScope } from './context.ts';

/** A piece of markup: as it stands, or read from the page; null where that is blank. */
type Piece = string | ((scope: RenderScope) => string | null);

/** A value of the page stands in the text as a private mark, with its number. */
const MARK = /\uE000(\d+)\uE001/;
const MARKS = /[\uE000\uE001]/g;

const ELEMENTS: ReadonlySet<string> = new Set(
  `a abbr address article aside b bdi bdo blockquote br caption cite code col colgroup data dd del
  details dfn div dl dt em figcaption figure footer h1 h2 h3 h4 h5 h6 header hgroup hr i img ins kbd
  li mark nav ol p pre q rp rt ruby s samp section small span strong sub summary sup table tbody td
  tfoot th thead time tr u ul var wbr`.split(/\s+/),
);
const VOID: ReadonlySet<string> = new Set(['br', 'col', 'hr', 'img', 'wbr']);
const EVERYWHERE = ['class', 'id', 'title', 'lang', 'dir', 'role', 'hidden'];
const ATTRIBUTES: Readonly<Record<string, readonly string[]>> = {
  a: ['href', 'rel', 'hreflang'],
  img: ['src', 'alt', 'width', 'height', 'loading'],
  td: ['colspan', 'rowspan', 'headers'],
  th: ['colspan', 'rowspan', 'headers', 'scope'],
  col: ['span'],
  colgroup: ['span'],
  ol: ['start', 'reversed'],
  li: ['value'],
  time: ['datetime'],
  data: ['value'],
  del: ['datetime'],
  ins: ['datetime'],
  details: ['open'],
};
const ADDRESSES: ReadonlySet<string> = new Set(['href', 'src']);

/**
 * Compiles HTML with patterns in braces: elements and attributes of a list alone, everything else is
 * an issue and is left out; addresses lead where links may lead. Blank where all it reads is blank.
 */
export function compileMarkup(html: string, c: BlockCompiler): Render {
  const { text, values } = withMarks(html, c);
  const writer = new MarkupWriter(values, c);
  const parser = new Parser(writer, { decodeEntities: true, lowerCaseTags: true });
  parser.end(text);
  const pieces = joined(writer.pieces);
  const reads = values.length > 0;
  return (scope) => {
    let out = '';
    let isFilled = !reads;
    for (const piece of pieces) {
      const value = typeof piece === 'string' ? piece : piece(scope);
      if (typeof piece !== 'string' && value !== null) isFilled = true;
      out += value ?? '';
    }
    return isFilled ? out : '';
  };
}

/** The text with its expressions as marks, and each of them by its number. */
function withMarks(html: string, c: BlockCompiler): { text: string; values: string[] } {
  const { tree, issues } = readPattern(html.replace(MARKS, ''), { brackets: false });
  for (const { code, message, fix = '' } of issues) c.fail(code, 'html', message, fix);
  const values: string[] = [];
  let text = '';
  for (const part of tree.parts) {
    if (part.kind === 'text') text += part.text;
    else if (part.kind === 'expression') {
      const { start, end } = part.range;
      text += `\uE000${values.length}\uE001`;
      values.push(tree.source.slice(start, end));
    }
  }
  return { text, values };
}

class MarkupWriter {
  readonly pieces: Piece[] = [];
  /** Elements that are open, and whether they are left out, with all within them. */
  private readonly open: { name: string; isLeftOut: boolean }[] = [];

  constructor(
    private readonly values: readonly string[],
    private readonly c: BlockCompiler,
  ) {}

  onopentag(name: string, attributes: Record<string, string>): void {
    const isWithin = this.isLeftOut;
    const isLeftOut = isWithin || !ELEMENTS.has(name);
    this.open.push({ name, isLeftOut });
    if (isLeftOut) return isWithin ? undefined : this.refuse(`<${unmarked(name)}>`);
    this.pieces.push(`<${name}`);
    for (const [attribute, value] of Object.entries(attributes))
      this.attribute(name, attribute, value);
    this.pieces.push('>');
  }

  /** What the text ends within is closed without having been opened. */
  onclosetag(name: string): void {
    if (this.open.at(-1)?.name !== name) return;
    const { isLeftOut } = this.open.pop()!;
    if (!isLeftOut && !VOID.has(name)) this.pieces.push(`</${name}>`);
  }

  ontext(text: string): void {
    if (!this.isLeftOut) this.pieces.push(...this.filled(text, 'text'));
  }

  private get isLeftOut(): boolean {
    return this.open.at(-1)?.isLeftOut ?? false;
  }

  private attribute(element: string, name: string, value: string): void {
    const isTaken =
      EVERYWHERE.includes(name) ||
      /^aria-[a-z]+$/.test(name) ||
      ATTRIBUTES[element]?.includes(name);
    if (!isTaken) return this.refuse(`"${unmarked(name)}" on <${element}>`);
    const parts = this.filled(value, 'attribute');
    if (!ADDRESSES.has(name)) {
      this.pieces.push(` ${name}="`, ...parts, '"');
      return;
    }
    if (!MARK.test(value) && !leads(name, value))
      return this.refuse(`${name}="${value.slice(0, 60)}"`);
    this.pieces.push((scope) => {
      const address = parts
        .map((part) => (typeof part === 'string' ? part : (part(scope) ?? '')))
        .join('');
      return leads(name, unescaped(address)) ? ` ${name}="${address}"` : null;
    });
  }

  /** A text with what it reads of the page, escaped. */
  private filled(text: string, context: 'text' | 'attribute'): Piece[] {
    return text.split(MARK).map((part, i) => {
      if (i % 2 === 0) return escapeHtml(part);
      return this.c.pattern(this.values[Number(part)]!, 'html', context);
    });
  }

  private refuse(what: string): void {
    const fix = 'Leave it out: markup takes text, links, pictures, lists and tables.';
    this.c.fail('markup-refused', 'html', `Markup takes no ${what}.`, fix);
  }
}

/** Pictures come from the site itself; links lead where links may. */
function leads(name: string, address: string): boolean {
  return isSafeLink(address) && (name === 'href' || /^\/(?!\/)/.test(address));
}

const unmarked = (name: string): string => name.replace(MARKS, '').slice(0, 40);

const ENTITIES: Readonly<Record<string, string>> = {
  '&amp;': '&',
  '&lt;': '<',
  '&gt;': '>',
  '&quot;': '"',
  '&#39;': "'",
};

function unescaped(text: string): string {
  return text.replace(/&(amp|lt|gt|quot|#39);/g, (entity) => ENTITIES[entity]!);
}

/** Texts that stand side by side, made one. */
function joined(pieces: readonly Piece[]): Piece[] {
  const out: Piece[] = [];
  for (const piece of pieces) {
    const last = out.at(-1);
    if (typeof piece === 'string' && typeof last === 'string') out[out.length - 1] = last + piece;
    else if (piece !== '') out.push(piece);
  }
  return out;
}
