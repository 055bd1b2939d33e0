import type { Expression, Part } from './tree.ts';

/** Writes parts as a pattern's text; reading it gives the same parts again. */
export function printParts(parts: Part[], { brackets = true } = {}): string {
  return parts.map((part) => printPart(part, brackets)).join('');
}

function printPart(part: Part, brackets: boolean): string {
  if (part.kind === 'expression') return `{${printExpression(part.expression)}}`;
  if (part.kind === 'group') return `[${printParts(part.parts, { brackets })}]`;
  return part.text.replace(brackets ? /[{}[\]]/g : /[{}]/g, (c) => c + c);
}

/** Writes one expression, without its braces. */
export function printExpression(e: Expression): string {
  switch (e.kind) {
    case 'path':
      return e.names.map(({ name }) => name).join('.');
    case 'string':
      return quoted(e.value);
    case 'number':
      return plainNumber(e.value);
    case 'call':
      return `${e.name}(${e.args.map(printExpression).join(', ')})`;
    case 'coalesce':
      return `${printExpression(e.left)} ?? ${printExpression(e.right)}`;
  }
}

// The language has no exponents, so 1e21 must not be printed as one.
function plainNumber(value: number): string {
  const text = String(value);
  if (!text.includes('e')) return text;
  return value.toLocaleString('en', { useGrouping: false, maximumFractionDigits: 100 });
}

/** Text as an expression that gives it. */
export function quoted(text: string): string {
  return `"${text.replace(/["\\]/g, (c) => `\\${c}`)}"`;
}
