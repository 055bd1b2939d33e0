import { didYouMean } from '../did-you-mean.ts';
import { isReference, targetOf } from '../design/field-values.ts';
import type { Field } from '../design/field.ts';
import type { ContentType } from '../design/spec.ts';
import { type EntryView, type Values, valuesOf } from '../design/values.ts';
import type { Bound, Holder, RenderScope } from './context.ts';

/** Where the names of a bound field start. */
interface Start {
  own: Holder | null;
  item: Holder | null;
  typeOf: (key: string) => ContentType | undefined;
}

/** What is wrong with the name of a field. */
interface Wrong {
  code: 'unknown-field' | 'wrong-kind';
  message: string;
  fix: string;
}

/** What a type offers to be bound to. */
export const holderOf = (type: ContentType): Holder => ({ ...type, type });

/**
 * Follows a name such as `photo`, `savedBy.portrait` or `item.photo` to a field: each but the last
 * is a reference to one entry of one type.
 */
export function boundTo(
  path: string,
  { own, item, typeOf }: Start,
  fits: (field: Field) => boolean,
  words: string,
): Bound | Wrong {
  const names = path.split('.');
  const isItem = names[0] === 'item' && names.length > 1 && item !== null;
  let holder = isItem ? item : own;
  let owner: Bound['owner'] = isItem ? ofItem : (scope) => scope;
  const chain: string[] = [];
  for (const [i, name] of names.slice(isItem ? 1 : 0).entries()) {
    const last = i === names.length - (isItem ? 2 : 1);
    const found: Field | undefined = holder?.fields.find(({ key }) => key === name);
    if (!found || (last && !fits(found)))
      return wrong(name, holder, found, last ? fits : isStep, words);
    chain.push(found.id);
    if (last) return bound(found, holder!.type, owner, chain, isItem ? 'item' : '');
    const next: ContentType | undefined = isStep(found) ? typeOf(found.types![0]!) : undefined;
    if (!next) return wrong(name, holder, found, isStep, 'a reference to one entry of one type');
    owner = ledTo(found.id, owner);
    holder = holderOf(next);
  }
  return wrong(path, holder, undefined, fits, words);
}

const isStep = (field: Field): boolean =>
  isReference(field) && !field.many && field.types?.length === 1;

function bound(
  field: Field,
  type: ContentType | null,
  owner: Bound['owner'],
  chain: string[],
  root: Bound['root'],
): Bound {
  const { id } = field;
  const isOwn = chain.length === 1 && root === '';
  const read: Bound['read'] = isOwn
    ? (scope) => valuesOf(scope.own?.values ?? {}, id)
    : (scope) => valuesOf(owner(scope)?.own?.values ?? {}, id);
  return { field, type, owner, read, chain, root };
}

/** The page as it reads the item of a repetition: an entry, or what stands in a group. */
function ofItem(scope: RenderScope): RenderScope | null {
  const item = scope.roots.item as EntryView | { values: Values } | null | undefined;
  if (!item || typeof item !== 'object') return null;
  return scope.of('id' in item ? item : { ...scope.own!, values: item.values });
}

function ledTo(field: string, owner: Bound['owner']): Bound['owner'] {
  return (scope) => {
    const [id] = valuesOf(owner(scope)?.own?.values ?? {}, field);
    const entry = id === undefined ? null : scope.entry(String(id));
    return entry && scope.of(entry);
  };
}

function wrong(
  name: string,
  holder: Holder | null,
  found: Field | undefined,
  fits: (field: Field) => boolean,
  words: string,
): Wrong {
  const fitting = holder?.fields.filter(fits).map(({ key }) => key) ?? [];
  const otherwise =
    fitting.length > 0
      ? `Fields that fit: ${fitting.join(', ')}.`
      : 'Add such a field to the type.';
  return {
    code: found ? 'wrong-kind' : 'unknown-field',
    message: found
      ? `This block shows ${words}, and "${name}" is ${found.kind}.`
      : holder
        ? `${holder.label} has no field "${name}".`
        : 'A field is bound here, and this template reads no content type.',
    fix: didYouMean(name, fitting, otherwise),
  };
}

/** What a group's items, or the entries a reference leads to, have as fields; null for others. */
export function itemsOf(
  field: Field,
  typeOf: (key: string) => ContentType | undefined,
): Holder | null {
  const target = targetOf(field);
  if (target?.of === 'group') return { label: field.label, type: null, fields: field.fields ?? [] };
  const [only, ...more] = target?.of === 'entries' ? (target.types ?? []) : [];
  const type = only === undefined || more.length > 0 ? undefined : typeOf(only);
  return type ? holderOf(type) : null;
}
