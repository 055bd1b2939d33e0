import type { Issue } from '../issue.ts';
import { type RichNode, withinForm } from '../rich-text/index.ts';
import { inItems } from './check-values.ts';
import type { Field } from './field.ts';
import { eachItem } from './fields-within.ts';
import type { Role } from './roles.ts';
import { textFormOf } from './text-form.ts';
import { type Values, valuesOf } from './values.ts';

/** Something in a text that may not stand there, or that somebody may not put in. */
interface NotLetIn extends Issue {
  /** What it is, as screens name it: "Table"; and its words. */
  what: string;
  words: string;
}

/**
 * What texts hold that their fields do not let in, or not from somebody of a role, in the order in
 * which it stands there, parts of texts included.
 */
function notLetIn(fields: readonly Field[], values: Values, role: Role): NotLetIn[] {
  return fields.flatMap((field) => {
    const form = textFormOf(field, role);
    const own = valuesOf(values, field.id).flatMap((value) => {
      if (field.kind !== 'richtext' || form.open) return [];
      const { removed } = withinForm(value as RichNode, form);
      return removed;
    });
    return [
      ...own.map(({ what, at, words }) => ({
        code: 'not-let-in',
        path: field.key,
        what,
        words,
        message: `${field.label} holds no ${what}, and one stands at "${at}"${words === '' ? '' : `: “${words.slice(0, 60)}”`}.`,
        fix:
          role === 'builder'
            ? 'Take it out, or let it into the form of texts that the field has.'
            : 'Take it out, or ask a builder of the site to let it in.',
      })),
      ...inItems(field, values, (inner, item) => notLetIn(inner, item, role)),
    ];
  });
}

/**
 * The same, less what stood there before: of each sort as many may stay, the same ones first.
 * Narrowing a form keeps nobody from mending a comma.
 */
export function notLetInAnew(
  fields: readonly Field[],
  values: Values,
  before: () => Values,
  role: Role,
): Issue[] {
  let found = notLetIn(fields, values, role);
  if (found.length === 0) return [];
  let left = notLetIn(fields, before(), role);
  for (const sameBy of [
    ({ path, what, words }: NotLetIn): string => JSON.stringify([path, what, words]),
    ({ path, what }: NotLetIn): string => JSON.stringify([path, what]),
  ])
    [found, left] = [unmatched(found, left, sameBy), unmatched(left, found, sameBy)];
  return found.map(({ what: _, words: __, ...issue }) => issue);
}

/** The ones that have no counterpart among the others, each of which is counterpart of one. */
function unmatched(
  all: readonly NotLetIn[],
  others: readonly NotLetIn[],
  sameBy: (one: NotLetIn) => string,
): NotLetIn[] {
  const left = new Map<string, number>();
  for (const one of others) left.set(sameBy(one), (left.get(sameBy(one)) ?? 0) + 1);
  return all.filter((one) => {
    const count = left.get(sameBy(one)) ?? 0;
    left.set(sameBy(one), count - 1);
    return count <= 0;
  });
}

/**
 * Values without what somebody of a role may not put into their texts; `less`: the labels of the
 * fields that held more.
 */
export function letIn(
  fields: readonly Field[],
  values: Values,
  role: Role,
): { values: Values; less: string[] } {
  const less = new Set<string>();
  const within = (field: Field, value: unknown): unknown => {
    if (Array.isArray(value)) return value.map((one) => within(field, one));
    const { doc, removed } = withinForm(value as RichNode, textFormOf(field, role));
    if (removed.length > 0) less.add(field.label);
    return doc;
  };
  const fitted = (all: readonly Field[], own: Values): Values => {
    const changed = all.flatMap((field): [string, unknown][] => {
      const value = own[field.id] ?? null;
      if (value === null) return [];
      if (field.fields) return [[field.id, eachItem(value, (item) => fitted(field.fields!, item))]];
      const isText = field.kind === 'richtext' && !textFormOf(field, role).open;
      return isText ? [[field.id, within(field, value)]] : [];
    });
    return { ...own, ...Object.fromEntries(changed) };
  };
  return { values: fitted(fields, values), less: [...less] };
}
