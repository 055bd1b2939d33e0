import { type Issue, type TextRange } from '../issue.ts';
import { nearest } from '../did-you-mean.ts';
import { FUNCTIONS } from './functions/index.ts';
import type { Parameter, PatternFunction } from './functions/definition.ts';
import { toText } from './to-text.ts';
import type { Expression } from './tree.ts';
import {
  type Environment,
  type Member,
  type Scope,
  type ValueType,
  isBlank,
  one,
  typeInWords,
} from './types.ts';

const MAX_HOPS = 16;

/**
 * An expression ready to be read: its type, its value in a scope, and the fields it goes through.
 */
export interface CompiledExpression {
  type: ValueType;
  read: (scope: Scope) => unknown;
  /** Chains of field keys from the entry itself, one for each path in the expression. */
  chains: FieldChain[];
  /** The field's id, where the expression is nothing but one of the entry's own texts. */
  ownText?: string | undefined;
}

/** A path through fields; `references` says which prefixes lead to other entries. */
export interface FieldChain {
  root: string;
  fields: string[];
  references: number;
  /** Whether it reads the path of what it leads to. */
  readsPath: boolean;
}

type PathExpression = Extract<Expression, { kind: 'path' }>;
type Named = PathExpression['names'][number];

/** How far a path has been followed. */
interface Walk {
  type: ValueType;
  read: (scope: Scope) => unknown;
  chain: FieldChain;
}

/** Checks and compiles expressions against an environment; what is wrong is added to `issues`. */
export class ExpressionCompiler {
  constructor(
    private readonly env: Environment,
    private readonly inAddress: boolean,
    private readonly issues: Issue[],
  ) {}

  /** The expression compiled; null, with issues, where it cannot be. */
  compile(e: Expression): CompiledExpression | null {
    switch (e.kind) {
      case 'string':
        return { type: one('text'), read: () => e.value, chains: [] };
      case 'number':
        return { type: one('number'), read: () => e.value, chains: [] };
      case 'path':
        return this.path(e);
      case 'call':
        return this.call(e);
      case 'coalesce':
        return this.coalesce(e);
    }
  }

  private path(e: PathExpression): CompiledExpression | null {
    const [head, ...rest] = e.names;
    if (e.names.length > MAX_HOPS)
      return this.fail(
        'too-many-hops',
        e.range,
        `A path has at most ${MAX_HOPS} names.`,
        'Shorten the path.',
      );
    const root = this.env.roots.get(head!.name);
    const member = root ?? this.env.own?.member(head!.name);
    if (!member)
      return this.unknownName(
        head!,
        [...(this.env.own?.memberNames() ?? []), ...this.env.roots.keys()],
        this.env.own?.name ?? 'this place',
      );
    if (!this.allowed(member, head!)) return null;
    const end = this.walk(startOf(head!.name, member, root !== undefined), rest);
    if (!end || !this.isValue(end.type, e)) return null;
    end.chain.readsPath = end.type.kind === 'path';
    return {
      type: end.type,
      read: end.read,
      chains: [end.chain],
      ...(rest.length === 0 && !root && member.isPlainText ? { ownText: member.field } : {}),
    };
  }

  /** Goes on from part to part; null, with an issue, where one is not there. */
  private walk(start: Walk, names: readonly Named[]): Walk | null {
    let { type, read } = start;
    const { chain } = start;
    for (const { name, range } of names) {
      if (type.kind !== 'object')
        return this.fail(
          'no-members',
          range,
          `"${name}" is asked of ${typeInWords(type)}, which has no parts.`,
          'End the path one name earlier.',
        );
      const next = type.object!.member(name);
      if (!next)
        return this.unknownName({ name, range }, type.object!.memberNames(), type.object!.name);
      if (!this.allowed(next, { name, range })) return null;
      read = step(read, type.many, next);
      if (next.field !== undefined) chain.fields.push(next.field);
      if (next.reference) chain.references = chain.fields.length;
      const inner = next.type();
      type = { ...inner, many: inner.many || type.many };
    }
    return { type, read, chain };
  }

  /** Whether a path ends at a value, and not at something that only has parts. */
  private isValue({ kind, object }: ValueType, e: PathExpression): boolean {
    if (kind !== 'object' || object!.naming !== undefined) return true;
    this.fail(
      'not-a-value',
      e.range,
      `"${e.names.map((n) => n.name).join('.')}" is ${object!.name}, not a value.`,
      `Add one of its parts: ${object!.memberNames().slice(0, 6).join(', ')}.`,
    );
    return false;
  }

  private allowed(member: Member, at: { name: string; range: TextRange }): boolean {
    if (!this.inAddress || member.notInAddress === undefined) return true;
    this.fail(
      'not-in-address',
      at.range,
      `An address may not read "${at.name}": ${member.notInAddress}.`,
      'Use another field.',
    );
    return false;
  }

  private call(e: Extract<Expression, { kind: 'call' }>): CompiledExpression | null {
    const fn = FUNCTIONS.get(e.name);
    if (!fn) {
      const near = nearest(e.name, FUNCTIONS.keys());
      return this.fail(
        'unknown-function',
        e.nameRange,
        `There is no function "${e.name}".`,
        near ? `Did you mean "${near}"?` : `Functions: ${[...FUNCTIONS.keys()].join(', ')}.`,
        near,
      );
    }
    const least = fn.parameters.filter((p) => !p.optional).length;
    if (e.args.length < least || e.args.length > fn.parameters.length) {
      const wanted =
        least === fn.parameters.length ? String(least) : `${least} to ${fn.parameters.length}`;
      return this.fail(
        'argument-count',
        e.range,
        `"${fn.name}" takes ${wanted} argument${wanted === '1' ? '' : 's'}; here are ${e.args.length}.`,
        `Write ${signature(fn)}.`,
      );
    }
    const args = e.args.map((arg) => this.compile(arg));
    const fits = e.args.map(
      (arg, i) => args[i] !== null && this.fits(fn, fn.parameters[i]!, arg, args[i]!.type),
    );
    if (!fits.every(Boolean)) return null;
    const compiled = args as CompiledExpression[];
    const types = compiled.map((arg) => arg.type);
    const chains = compiled
      .flatMap((arg) => arg.chains)
      .map((chain) => (fn.readsPath ? { ...chain, readsPath: true } : chain));
    return { type: fn.returns(types), read: caller(fn, compiled, types), chains };
  }

  private fits(
    fn: PatternFunction,
    parameter: Parameter,
    arg: Expression,
    type: ValueType,
  ): boolean {
    if (type.many && parameter.takes === 'one') {
      this.fail(
        'many-valued',
        arg.range,
        `"${fn.name}" takes one value, and this gives ${typeInWords(type)}.`,
        'Take one of them with first(…) or last(…), or make a text of them with join(…).',
      );
      return false;
    }
    if (parameter.kinds !== 'any' && !parameter.kinds.includes(type.kind)) {
      const wanted = parameter.kinds
        .filter((k) => k !== 'path' && k !== 'object')
        .map((kind) => typeInWords({ kind, many: false }));
      this.fail(
        'argument-kind',
        arg.range,
        `"${fn.name}" wants ${wanted.join(' or ') || 'an entry'} for "${parameter.name}", and this is ${typeInWords(type)}.`,
        `Write ${signature(fn)}.`,
      );
      return false;
    }
    return !parameter.literal || this.literalFits(fn, parameter, arg);
  }

  /** Whether an argument that must be written out is, and is one that the function knows. */
  private literalFits(fn: PatternFunction, parameter: Parameter, arg: Expression): boolean {
    if (arg.kind !== 'string' && arg.kind !== 'number') {
      this.fail(
        'argument-literal',
        arg.range,
        `"${fn.name}" wants its "${parameter.name}" written out, so that it can be checked now.`,
        'Write it in double quotes.',
      );
      return false;
    }
    const wrong = parameter.literal!(arg.value, this.inAddress);
    if (wrong !== null) this.fail('argument-value', arg.range, wrong, 'For example "yyyy-MM-dd".');
    return wrong === null;
  }

  private coalesce(e: Extract<Expression, { kind: 'coalesce' }>): CompiledExpression | null {
    const left = this.compile(e.left);
    const right = this.compile(e.right);
    if (!left || !right) return null;
    const chains = [...left.chains, ...right.chains];
    if (
      left.type.kind === right.type.kind &&
      left.type.kind !== 'object' &&
      left.type.kind !== 'choice'
    ) {
      const type = { ...left.type, many: left.type.many || right.type.many };
      const orRight = (scope: Scope): unknown => {
        const value = left.read(scope);
        return isBlank(value) ? right.read(scope) : value;
      };
      return { type, read: orRight, chains };
    }
    const [a, b] = [toText(left.type), toText(right.type)];
    return {
      type: one('text'),
      read: (scope) => a(left.read(scope), scope) ?? b(right.read(scope), scope),
      chains,
    };
  }

  private unknownName(
    { name, range }: { name: string; range: TextRange },
    known: string[],
    owner: string,
  ): null {
    const near = nearest(name, known);
    return this.fail(
      'unknown-name',
      range,
      `${owner.slice(0, 1).toUpperCase()}${owner.slice(1)} has no "${name}".`,
      near ? `Did you mean "${near}"?` : `It has: ${known.slice(0, 12).join(', ')}.`,
      near,
    );
  }

  private fail(
    code: string,
    range: TextRange,
    message: string,
    fix: string,
    replacement?: string,
  ): null {
    this.issues.push({
      code,
      range,
      message,
      fix,
      ...(replacement === undefined ? {} : { replacement }),
    });
    return null;
  }
}

/** Where a path starts: at a root of the place, or at a member of the entry itself. */
function startOf(name: string, member: Member, isRoot: boolean): Walk {
  const atRoot = isRoot && member.field === undefined;
  return {
    type: member.type(),
    read: atRoot ? rootReader(name) : (scope) => member.read(scope.own, scope),
    chain: {
      root: atRoot ? name : '',
      fields: member.field === undefined ? [] : [member.field],
      references: member.reference ? 1 : 0,
      readsPath: false,
    },
  };
}

function rootReader(name: string): (scope: Scope) => unknown {
  return name === 'entry' ? (scope) => scope.own : (scope) => scope.roots[name] ?? null;
}

function signature(fn: PatternFunction): string {
  return `${fn.name}(${fn.parameters.map((p) => (p.optional ? `${p.name}?` : p.name)).join(', ')})`;
}

function spend(scope: Scope): boolean {
  if (scope.steps > 0) {
    scope.steps--;
    return true;
  }
  if (!scope.issues.some((issue) => issue.code === 'too-many-steps'))
    scope.issues.push({
      code: 'too-many-steps',
      message: 'This pattern reads too many values for one page.',
      fix: 'Follow fewer lists in it.',
    });
  return false;
}

function step(
  read: (scope: Scope) => unknown,
  many: boolean,
  member: Member,
): (scope: Scope) => unknown {
  if (!many) {
    return (scope) => {
      const owner = read(scope);
      return owner === null || owner === undefined || !spend(scope)
        ? null
        : member.read(owner, scope);
    };
  }
  return (scope) => {
    const owners = read(scope);
    if (!Array.isArray(owners)) return [];
    return owners.flatMap((owner) => {
      const value = spend(scope) ? member.read(owner, scope) : null;
      return isBlank(value) ? [] : value;
    });
  };
}

function caller(
  fn: PatternFunction,
  args: CompiledExpression[],
  types: ValueType[],
): (scope: Scope) => unknown {
  return (scope) => {
    if (!spend(scope)) return null;
    const values: unknown[] = [];
    for (let i = 0; i < args.length; i++) {
      let value = args[i]!.read(scope);
      const parameter = fn.parameters[i]!;
      if (parameter.takes === 'list')
        value = (Array.isArray(value) ? value : [value]).filter((v) => !isBlank(v));
      const needed =
        i === 0 ? !fn.takesBlank : !(parameter.kinds !== 'any' && parameter.kinds.includes('text'));
      if (needed && isBlank(value)) return null;
      values.push(value);
    }
    return fn.call(values, scope, types);
  };
}
