import type { TextRange } from '../issue.ts';

/** An expression between braces. Ranges are places in the pattern's text. */
export type Expression =
  | { kind: 'path'; names: { name: string; range: TextRange }[]; range: TextRange }
  | { kind: 'string'; value: string; range: TextRange }
  | { kind: 'number'; value: number; range: TextRange }
  | { kind: 'call'; name: string; nameRange: TextRange; args: Expression[]; range: TextRange }
  | { kind: 'coalesce'; left: Expression; right: Expression; range: TextRange };

/** One part of a pattern: text as it stands, an expression, or an optional group. */
export type Part =
  | { kind: 'text'; text: string; range: TextRange }
  | { kind: 'expression'; expression: Expression; range: TextRange }
  | { kind: 'group'; parts: Part[]; range: TextRange };

/** Everything a pattern's text was read into. */
export interface PatternTree {
  source: string;
  parts: Part[];
}

/** Visits every expression of the parts, nested ones included. */
export function eachExpression(parts: Part[], visit: (expression: Expression) => void): void {
  const walk = (e: Expression): void => {
    visit(e);
    if (e.kind === 'call') e.args.forEach(walk);
    if (e.kind === 'coalesce') [e.left, e.right].forEach(walk);
  };
  for (const part of parts) {
    if (part.kind === 'expression') walk(part.expression);
    if (part.kind === 'group') eachExpression(part.parts, visit);
  }
}
