import type { Issue, TextRange } from '../issue.ts';
import { escapeHtml, foldSpace, hasText } from '../text.ts';
import { type FieldChain, ExpressionCompiler } from './expression.ts';
import { type OwnTexts, inARow, quick } from './own-texts.ts';
import { printExpression } from './print.ts';
import { readPattern } from './read.ts';
import { toText } from './to-text.ts';
import type { Part, PatternTree } from './tree.ts';
import {
  type Context,
  type Environment,
  type Scope,
  type ValueType,
  isBlank,
  one,
} from './types.ts';

const MAX_RESULT = 64 * 1024;
/** Values one evaluation may read. */
export const MAX_STEPS = 10_000;

/** One piece of a result, with the part of the pattern it came from. */
export interface TracedPart {
  kind: 'literal' | 'value' | 'path' | 'left-out';
  /** Unescaped; '' where blank. */
  text: string;
  range: TextRange;
  /** The expression as written, for values. */
  expression?: string;
}

/** A pattern ready for use: evaluation neither parses nor throws on content. */
export interface CompiledPattern {
  source: string;
  /** The result, escaped for its context; null where blank. */
  text: (scope: Scope) => string | null;
  /** The typed value, where the pattern is one expression; else its text. */
  value: (scope: Scope) => unknown;
  type: ValueType;
  /** The pieces of the result, unescaped, in order. */
  trace: (scope: Scope) => TracedPart[];
  chains: FieldChain[];
}

type Text = (scope: Scope) => string | null;

/** A part ready for use: a literal as escaped text, the others as what gives it. */
interface CompiledPart {
  kind: 'literal' | 'value' | 'group';
  literal: string;
  /** Escaped; null where blank or left out. What it gives is never only white space. */
  text: Text;
  /** The part as it reads where nothing is blank, where it reads the entry's own texts alone. */
  own: OwnTexts | null;
  trace: (scope: Scope, out: TracedPart[]) => void;
}

/** Reads, checks and compiles a pattern; `pattern` is null where anything is wrong. */
export function compilePattern(
  source: string,
  env: Environment,
  context: Context,
): { pattern: CompiledPattern | null; issues: Issue[] } {
  const { tree, issues } = readPattern(source);
  const compiler = new PatternCompiler(env, context, issues, issues.length === 0);
  const pattern = compiler.pattern(tree);
  return { pattern: issues.length === 0 ? pattern : null, issues };
}

class PatternCompiler {
  private readonly expressions: ExpressionCompiler;
  private readonly chains: FieldChain[] = [];
  private readonly types: ValueType[] = [];
  private readonly escape: (text: string) => string;

  constructor(
    env: Environment,
    private readonly context: Context,
    private readonly issues: Issue[],
    /** Whether the pattern could be read as it is meant. */
    private readonly wellRead: boolean,
  ) {
    this.expressions = new ExpressionCompiler(env, context === 'address', issues);
    this.escape = context === 'text' || context === 'attribute' ? escapeHtml : (text) => text;
  }

  pattern(tree: PatternTree): CompiledPattern {
    const single =
      tree.parts.length === 1 && tree.parts[0]!.kind === 'expression'
        ? tree.parts[0]!.expression
        : null;
    const parts = tree.parts.map((part) => this.part(part)).filter((part) => part !== null);
    const joined = concatenate(parts);
    const folds = this.context === 'metadata';
    const whole = (scope: Scope): string | null => {
      scope.steps = MAX_STEPS;
      const result = joined(scope);
      return result !== null && result.length > MAX_RESULT ? cap(result, scope) : result;
    };
    const text = folds ? folded(whole) : (quick(inARow(parts), this.escape, whole) ?? whole);
    const read =
      single && this.context === 'value' && this.issues.length === 0
        ? this.expressions.compile(single)
        : null;
    return {
      source: tree.source,
      text,
      value: read ? (scope) => (isBlank(read.read(scope)) ? null : read.read(scope)) : text,
      type: read?.type ?? one('text'),
      trace: (scope) => {
        scope.steps = MAX_STEPS;
        const out: TracedPart[] = [];
        for (const part of parts) part.trace(scope, out);
        return out;
      },
      chains: this.chains,
    };
  }

  private part(part: Part): CompiledPart | null {
    if (part.kind === 'text') return this.literal(part);
    if (part.kind === 'expression') return this.value(part);
    const inner = part.parts.map((p) => this.part(p)).filter((p) => p !== null);
    const text = group(inner);
    return {
      kind: 'group',
      literal: '',
      text,
      own: inARow(inner),
      trace: (scope, out) => {
        if (text(scope) === null) out.push({ kind: 'left-out', text: '', range: part.range });
        else for (const p of inner) p.trace(scope, out);
      },
    };
  }

  private literal(part: Extract<Part, { kind: 'text' }>): CompiledPart {
    if (this.context === 'address' && this.wellRead) this.checkAddressText(part);
    const text = this.escape(part.text);
    return {
      kind: 'literal',
      literal: text,
      text: () => text,
      own: { fields: [], before: [], end: text },
      trace: (_, out) => out.push({ kind: 'literal', text: part.text, range: part.range }),
    };
  }

  private checkAddressText({ text, range }: { text: string; range: TextRange }): void {
    const odd = /[^a-z0-9._~/-]/u.exec(text)?.[0];
    if (odd === undefined) return;
    this.issues.push({
      code: 'address-text',
      range,
      message: `An address is made of small letters, digits, "-", ".", "_", "~" and "/"; here stands "${odd}".`,
      fix: 'Replace it by a hyphen.',
    });
  }

  private value(part: Extract<Part, { kind: 'expression' }>): CompiledPart | null {
    const compiled = this.expressions.compile(part.expression);
    if (!compiled) return null;
    this.chains.push(...compiled.chains);
    this.types.push(compiled.type);
    const plain = toText(compiled.type);
    const { escape } = this;
    const kind = compiled.type.kind === 'path' ? 'path' : 'value';
    const expression = printExpression(part.expression);
    const escaped = (scope: Scope): string | null => {
      const text = plain(compiled.read(scope), scope);
      return text === null ? null : escape(text);
    };
    return {
      kind: 'value',
      literal: '',
      text: escaped,
      own:
        compiled.ownText === undefined
          ? null
          : { fields: [compiled.ownText], before: [''], end: '' },
      trace: (scope, out) =>
        out.push({
          kind,
          text: plain(compiled.read(scope), scope) ?? '',
          range: part.range,
          expression,
        }),
    };
  }
}

function folded(text: Text): Text {
  return (scope) => {
    const result = text(scope);
    return result === null ? null : foldSpace(result);
  };
}

/** The parts one after the other; null where nothing but white space would stand there. */
function concatenate(parts: CompiledPart[]): Text {
  const [first] = parts;
  if (parts.length === 1 && first!.kind !== 'literal') return first!.text;
  const always = parts.some((part) => part.kind === 'literal' && hasText(part.literal));
  return (scope) => {
    let out = '';
    let some = always;
    for (const part of parts) {
      const text = part.text(scope);
      if (text === null) continue;
      out += text;
      if (part.kind !== 'literal') some = true;
    }
    return some ? out : null;
  };
}

/**
 * Left out where a direct expression is blank, or where all it has are nested groups and all are
 * left out.
 */
function group(parts: CompiledPart[]): Text {
  const values = parts.filter((part) => part.kind !== 'literal');
  if (values.length === 1) return around(parts, values[0]!);
  const direct = values.some((part) => part.kind === 'value');
  return (scope) => {
    let out = '';
    let kept = direct;
    for (const part of parts) {
      const text = part.text(scope);
      if (text === null && part.kind === 'value') return null;
      if (part.kind === 'group' && text !== null) kept = true;
      out += text ?? '';
    }
    return kept ? out : null;
  };
}

/** One value with literals before and after it: the most common group. */
function around(parts: CompiledPart[], value: CompiledPart): Text {
  const at = parts.indexOf(value);
  const [before, after] = [parts.slice(0, at), parts.slice(at + 1)].map((side) =>
    side.map((part) => part.literal).join(''),
  ) as [string, string];
  const { text } = value;
  return (scope) => {
    const inner = text(scope);
    return inner === null ? null : before + inner + after;
  };
}

function cap(text: string, scope: Scope): string {
  scope.issues.push({
    code: 'result-too-long',
    message: 'The result is longer than 64 kB and was cut.',
    fix: 'Use limit(…) in the pattern.',
  });
  return text.slice(0, MAX_RESULT);
}
