import { type CompiledPattern, compilePattern } from '../pattern/compile.ts';
import type { Environment, Member, ObjectType, Scope } from '../pattern/types.ts';
import type { Field } from './field.ts';
import { targetOf } from './field-values.ts';
import { namesIn, withRanges } from '../pattern/names.ts';
import { kindOf } from './kinds/index.ts';
import { plainMember } from './members.ts';
import { valueForm } from './value-form.ts';
import type { Values } from './values.ts';

/** What the words of a computed value are written for. */
interface Written {
  zone: string;
  language: string;
}

/** A computed field ready to be worked out. */
interface Computed {
  id: string;
  pattern: CompiledPattern;
}

/** The computed fields of a type, and those whose place others took. */
interface ComputedFields {
  now: Computed[];
  before: Computed[];
}

const KNOWN = new WeakMap<readonly Field[], ComputedFields>();
const NONE: ComputedFields = { now: [], before: [] };

/**
 * Values with those of computed fields that read nothing but the entry's own other fields: such
 * values stand in lists, filters and tables like stored ones. The same values are given back
 * where there is none.
 */
export function withComputed(fields: readonly Field[], values: Values, how: Written): Values {
  return workedOut(ownComputed(fields).now, values, how);
}

/** Values with those of computed fields whose place others took, as they would be. */
export function withComputedBefore(fields: readonly Field[], values: Values, how: Written): Values {
  return workedOut(ownComputed(fields).before, values, how);
}

function workedOut(computed: readonly Computed[], values: Values, how: Written): Values {
  if (computed.length === 0) return values;
  const scope = scopeOf(values, how);
  const read = { ...values };
  for (const { id, pattern } of computed) read[id] = pattern.text(scope);
  return read;
}

/** Whether a field is computed from nothing but the entry's own other fields. */
export function readsOwnAlone(field: Field, fields: readonly Field[]): boolean {
  return ownComputed(fields).now.some(({ id }) => id === field.id);
}

/** Whether the values of a field are worked out and never written. */
export function isDerived(field: Pick<Field, 'kind'>): boolean {
  return kindOf(field).derived;
}

function ownComputed(fields: readonly Field[]): ComputedFields {
  let known = KNOWN.get(fields);
  if (!known) KNOWN.set(fields, (known = compiled(fields)));
  return known;
}

function compiled(fields: readonly Field[]): ComputedFields {
  const now = fields.filter(isDerived);
  const before = fields.flatMap((field) => {
    const all: { id: string; pattern?: string | undefined }[] = [];
    for (let b = field.replaces; b; b = b.replaces)
      if (isDerived(b)) all.push({ id: b.field, pattern: b.pattern });
    return all;
  });
  if (now.length + before.length === 0) return NONE;
  const env = environmentOf(fields);
  const ready = ({ id, pattern: source = '' }: (typeof before)[number]): Computed[] => {
    const { pattern } = compilePattern(source, env, 'metadata');
    return pattern ? [{ id, pattern }] : [];
  };
  return { now: now.flatMap(ready), before: before.flatMap(ready) };
}

/** What a computed field is worked out by: its pattern, whatever keys are, and what that reads. */
export function workedOutBy({ pattern = '' }: Field, fields: readonly Field[]): unknown {
  const uses = namesIn(pattern, environmentOf(fields));
  const read = new Set(uses.map(({ member }) => member.field));
  return [
    withRanges(
      pattern,
      uses.map(({ range, member }) => ({ range, by: `#${member.field}` })),
    ),
    fields.filter(({ id }) => read.has(id)).map(valueForm),
  ];
}

/** The entry's own fields whose values stand for themselves, and nothing else. */
function environmentOf(fields: readonly Field[]): Environment {
  const members = new Map<string, Member>(
    fields
      .filter((field) => !isDerived(field) && targetOf(field) === null)
      .map((field) => [field.key, plainMember(field)]),
  );
  const own: ObjectType = {
    name: 'the entry',
    member: (name) => members.get(name),
    memberNames: () => [...members.keys()],
  };
  return { own, roots: new Map() };
}

function scopeOf(values: Values, { zone, language }: Written): Scope {
  return {
    language,
    zone,
    own: { values },
    roots: {},
    address: false,
    urlOf: () => null,
    imageUrl: () => null,
    steps: 0,
    issues: [],
  };
}
