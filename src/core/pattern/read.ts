import type { Issue } from '../issue.ts';
import { readExpression } from './read-expression.ts';
import { type Part, type PatternTree, eachExpression } from './tree.ts';

/** A tree as far as it could be read, and what is wrong with the text. Never throws. */
export interface ReadPattern {
  tree: PatternTree;
  issues: Issue[];
}

/** What the reader may treat as syntax. Markup recognises braces only. */
export interface ReadOptions {
  brackets?: boolean;
}

interface Frame {
  parts: Part[];
  start: number;
}

/** Reads a pattern's text into its tree. */
export function readPattern(source: string, { brackets = true }: ReadOptions = {}): ReadPattern {
  return new Reader(source, brackets).read();
}

class Reader {
  private readonly issues: Issue[] = [];
  private readonly frames: Frame[] = [{ parts: [], start: 0 }];
  private pos = 0;
  private lost = false;

  constructor(
    private readonly source: string,
    private readonly brackets: boolean,
  ) {}

  read(): ReadPattern {
    while (this.pos < this.source.length) this.step();
    while (this.frames.length > 1) {
      const { start } = this.frames.at(-1)!;
      this.issue(
        'unclosed-group',
        start,
        start + 1,
        'This "[" is never closed.',
        'Add "]", or write "[[" for a bracket as text.',
      );
      this.closeGroup();
    }
    return { tree: { source: this.source, parts: this.frames[0]!.parts }, issues: this.issues };
  }

  private step(): void {
    const c = this.source[this.pos]!;
    const doubled = this.source[this.pos + 1] === c;
    if (c === '{' && !doubled) return this.expression();
    if (c === '{') return this.text(c, 2);
    if (c === '}' && doubled) return this.text(c, 2);
    if (c === '}') {
      this.issue(
        'lone-brace',
        this.pos,
        this.pos + 1,
        'This "}" closes nothing.',
        'Write "}}" for a brace as text.',
        '}}',
      );
      return this.text(c, 1);
    }
    if (this.brackets && c === '[') return doubled ? this.text(c, 2) : this.openGroup();
    if (this.brackets && c === ']') return this.closingBracket(doubled);
    return this.text(c, 1);
  }

  private closingBracket(doubled: boolean): void {
    if (doubled && this.frames.length < 3) return this.text(']', 2);
    if (this.frames.length > 1) {
      this.pos++;
      this.closeGroup();
      if (!doubled) return;
      this.pos++;
      return this.closeGroup();
    }
    this.issue(
      'lone-bracket',
      this.pos,
      this.pos + 1,
      'This "]" closes nothing.',
      'Write "]]" for a bracket as text.',
      ']]',
    );
    this.text(']', 1);
  }

  private openGroup(): void {
    this.frames.push({ parts: [], start: this.pos++ });
  }

  private closeGroup(): void {
    const { parts, start } = this.frames.pop()!;
    const range = { start, end: this.pos };
    let expressions = 0;
    eachExpression(parts, () => expressions++);
    if (expressions === 0) {
      const message = 'This optional part has no expression, so nothing could ever leave it out.';
      this.issue(
        'group-without-expression',
        start,
        this.pos,
        message,
        'Put an expression in it, or write "[[" and "]]" for brackets as text.',
      );
    }
    this.frames.at(-1)!.parts.push({ kind: 'group', parts, range });
  }

  private expression(): void {
    const start = this.pos;
    const read = readExpression(this.source, start + 1);
    // What stands after a broken expression is likely to be read wrongly too; one cause, one issue.
    if (!this.lost) this.issues.push(...read.issues);
    if (read.issues.length > 0) this.lost = true;
    this.pos = read.end;
    if (read.expression)
      this.frames.at(-1)!.parts.push({
        kind: 'expression',
        expression: read.expression,
        range: { start, end: read.end },
      });
  }

  private text(c: string, length: number): void {
    const { parts } = this.frames.at(-1)!;
    const last = parts.at(-1);
    const end = this.pos + length;
    if (last?.kind === 'text') {
      last.text += c;
      last.range.end = end;
    } else parts.push({ kind: 'text', text: c, range: { start: this.pos, end } });
    this.pos = end;
  }

  private issue(
    code: string,
    start: number,
    end: number,
    message: string,
    fix: string,
    replacement?: string,
  ): void {
    if (!this.lost)
      this.issues.push({
        code,
        range: { start, end },
        message,
        fix,
        ...(replacement === undefined ? {} : { replacement }),
      });
  }
}
