import { Parser } from 'htmlparser2';

/** Something on a page that its readers would stumble over, in a sentence. */
export type Stumble = string;

/**
 * What is wrong with the build of a page: its headings out of order, links and pictures that say
 * nothing, ids that stand twice. Sentences, each once, in the order of the page.
 */
export function stumblesIn(html: string): Stumble[] {
  const walker = new PageWalker();
  new Parser(walker).end(html);
  return [...new Set([...walker.found, ...walker.ofHeadings()])];
}

/** A link whose words are awaited. */
interface OpenLink {
  href: string;
  says: boolean;
}

class PageWalker {
  readonly found: Stumble[] = [];
  private readonly levels: number[] = [];
  private readonly ids = new Set<string>();
  private link: OpenLink | null = null;

  onopentag(name: string, attributes: Record<string, string>): void {
    const { id, alt, href } = attributes;
    if (id !== undefined && this.ids.has(id)) this.found.push(`The id “${id}” stands twice.`);
    if (id !== undefined) this.ids.add(id);
    if (/^h[1-6]$/.test(name)) this.levels.push(Number(name[1]));
    if (name === 'img' && alt === undefined)
      this.found.push(`The picture ${attributes.src ?? ''} has no alternative text.`);
    if (name === 'a' && href !== undefined)
      this.link = { href, says: attributes['aria-label'] !== undefined };
    if (this.link && alt !== undefined && alt.trim() !== '') this.link.says = true;
  }

  ontext(text: string): void {
    if (this.link && text.trim() !== '') this.link.says = true;
  }

  onclosetag(name: string): void {
    if (name !== 'a' || !this.link) return;
    if (!this.link.says) this.found.push(`The link to ${this.link.href} has no words.`);
    this.link = null;
  }

  /** A page has one heading of level 1, and no level is passed over on the way down. */
  ofHeadings(): Stumble[] {
    const { levels } = this;
    const tops = levels.filter((level) => level === 1).length;
    const jumps = levels.flatMap((level, i) => {
      const before = levels[i - 1] ?? 1;
      return level > before + 1
        ? [`A heading of level ${level} follows one of level ${before}: a level is passed over.`]
        : [];
    });
    if (tops === 0) return ['No heading of level 1 says what the page is.', ...jumps];
    return tops > 1 ? [`${tops} headings of level 1: a page has one.`, ...jumps] : jumps;
  }
}
