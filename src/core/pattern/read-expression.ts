import type { Issue } from '../issue.ts';
import type { Expression } from './tree.ts';

/** The expression read, if any, and the place after its closing brace. */
export interface ReadExpression {
  expression: Expression | null;
  end: number;
  issues: Issue[];
}

class Fault extends Error {
  constructor(readonly issue: Issue) {
    super(issue.message);
  }
}

const NAME = /[A-Za-z_][A-Za-z0-9_]*/y;
const NUMBER = /-?\d{1,15}(?:\.\d{1,15})?/y;
const MAX_NESTING = 64;

/** Reads an expression that starts after its opening brace, up to and with its closing brace. */
export function readExpression(source: string, start: number): ReadExpression {
  const reader = new ExpressionReader(source, start);
  try {
    const expression = reader.whole();
    return { expression, end: reader.pos, issues: [] };
  } catch (fault) {
    if (!(fault instanceof Fault)) throw fault;
    const close = source.indexOf('}', Math.max(start, fault.issue.range?.start ?? start));
    return { expression: null, end: close < 0 ? source.length : close + 1, issues: [fault.issue] };
  }
}

class ExpressionReader {
  private depth = 0;

  constructor(
    private readonly source: string,
    public pos: number,
  ) {}

  whole(): Expression {
    const open = this.pos - 1;
    this.space();
    if (this.peek() === '}')
      throw this.fault(
        'empty-expression',
        open,
        this.pos + 1,
        'There is nothing between these braces.',
        'Name a field, or write "{{" for a brace as text.',
      );
    const expression = this.coalesce();
    this.space();
    if (this.pos >= this.source.length)
      throw this.fault(
        'unclosed-expression',
        open,
        this.pos,
        'This "{" is never closed.',
        'Add "}", or write "{{" for a brace as text.',
      );
    if (this.peek() !== '}') throw this.unexpected('"}"');
    this.pos++;
    return expression;
  }

  private coalesce(): Expression {
    if (++this.depth > MAX_NESTING)
      throw this.fault(
        'too-deep',
        this.pos,
        this.pos + 1,
        `Expressions nest at most ${MAX_NESTING} deep.`,
        'Make the pattern simpler.',
      );
    const left = this.primary();
    this.space();
    let result = left;
    if (this.source.startsWith('??', this.pos)) {
      this.pos += 2;
      this.space();
      const right = this.coalesce();
      result = {
        kind: 'coalesce',
        left,
        right,
        range: { start: left.range.start, end: right.range.end },
      };
    }
    this.depth--;
    return result;
  }

  private primary(): Expression {
    this.space();
    const start = this.pos;
    if (this.peek() === '"') return this.string();
    const number = this.match(NUMBER);
    if (number !== null)
      return { kind: 'number', value: Number(number) + 0, range: { start, end: this.pos } };
    const name = this.match(NAME);
    if (name === null)
      throw this.unexpected('a field, a text in double quotes, a number or a function');
    const nameRange = { start, end: this.pos };
    this.space();
    if (this.peek() === '(') return this.call(name, nameRange);
    const names = [{ name, range: nameRange }];
    while (this.peek() === '.') {
      this.pos++;
      this.space();
      const from = this.pos;
      const next = this.match(NAME);
      if (next === null) throw this.unexpected('a name after the dot');
      names.push({ name: next, range: { start: from, end: this.pos } });
      this.space();
    }
    return { kind: 'path', names, range: { start, end: names.at(-1)!.range.end } };
  }

  private call(name: string, nameRange: { start: number; end: number }): Expression {
    this.pos++;
    const args: Expression[] = [];
    this.space();
    while (this.peek() !== ')') {
      args.push(this.coalesce());
      this.space();
      if (this.peek() === ',') {
        this.pos++;
        this.space();
        if (this.peek() === ')') throw this.unexpected('another argument');
      } else if (this.peek() !== ')') throw this.unexpected('"," or ")"');
    }
    this.pos++;
    return {
      kind: 'call',
      name,
      nameRange,
      args,
      range: { start: nameRange.start, end: this.pos },
    };
  }

  private string(): Expression {
    const start = this.pos++;
    let value = '';
    while (this.pos < this.source.length && this.peek() !== '"') {
      if (this.peek() === '\\' && /["\\]/.test(this.source[this.pos + 1] ?? '')) this.pos++;
      value += this.source[this.pos++];
    }
    if (this.pos >= this.source.length)
      throw this.fault(
        'unclosed-text',
        start,
        this.pos,
        'This text in quotes is never closed.',
        'Add a double quote.',
      );
    this.pos++;
    return { kind: 'string', value, range: { start, end: this.pos } };
  }

  private peek(): string | undefined {
    return this.source[this.pos];
  }

  private space(): void {
    while (/\s/u.test(this.peek() ?? '')) this.pos++;
  }

  private match(expression: RegExp): string | null {
    expression.lastIndex = this.pos;
    const found = expression.exec(this.source)?.[0];
    if (found === undefined) return null;
    this.pos += found.length;
    return found;
  }

  private unexpected(wanted: string): Fault {
    const found = this.peek();
    if (found === undefined)
      return this.fault(
        'unclosed-expression',
        this.pos,
        this.pos,
        `The pattern ends where ${wanted} was expected.`,
        'Complete the expression and close it with "}".',
      );
    return this.fault(
      'unexpected-character',
      this.pos,
      this.pos + 1,
      `Found "${found}" where ${wanted} was expected.`,
      'Texts stand in double quotes; functions are written name(argument, …).',
    );
  }

  private fault(code: string, start: number, end: number, message: string, fix: string): Fault {
    return new Fault({ code, range: { start, end }, message, fix });
  }
}
