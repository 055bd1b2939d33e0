import { z } from 'zod';
import type { Issue } from '../../issue.ts';
import { ok } from '../../issue.ts';
import { one } from '../../pattern/types.ts';
import type { Field } from '../field.ts';
import { parseItem, printItem } from '../item-values.ts';
import { type Values, valuesOf } from '../values-of.ts';
import { type DisplayWorld, type FieldKind, PLAIN, notA } from './definition.ts';
import { kindOf } from './registry.ts';

/** How deep groups may stand within each other. */
export const MAX_DEPTH = 4;

/** Fields that belong together, once or several times: a name and a seat for each rower. */
export const group: FieldKind<'group'> = {
  ...PLAIN,
  kind: 'group',
  label: 'Group',
  words: 'a group of fields',
  doc: 'Fields that belong together, once or several times: each rower with name and seat.',
  spoken: ['group'],
  /** What they are is said where fields are, which they hold. */
  properties: { fields: z.array(z.unknown()) },
  valueType: () => one('text'),
  parse: (raw, field, given) => {
    const fix = `It has: ${(field.fields ?? []).map((f) => f.key).join(', ')}.`;
    if (typeof raw !== 'object' || raw === null || Array.isArray(raw))
      return notA(field, 'a group', raw, fix);
    const { values, issues } = parseItem(raw as Values, field.fields ?? [], given);
    if (issues.length > 0)
      return { ok: false, issues: issues.map((issue) => ({ ...issue, path: field.key })) };
    return ok(Object.keys(values).length === 0 ? null : values);
  },
  print: (stored, { fields = [] }, zone) => printItem(stored as Values, fields, zone),
  asText: () => null,
  searched: (stored, field) =>
    (field.fields ?? [])
      .flatMap((inner) =>
        valuesOf(stored as Values, inner.id).map((v) => kindOf(inner).searched(v, inner)),
      )
      .filter((words) => words !== '')
      .join('\n'),
  fromText: () => null,
  control: 'group',
  display: (stored, field, world) => displayed(stored as Values, field, world),
  family: 'presence',
  sortable: false,
  target: () => ({ of: 'group' }),
  items: (stored, { fields = [] }) => [{ fields, values: stored as Values }],
  standIn: (field, world) => {
    const values = (field.fields ?? []).flatMap((inner) => {
      const value = kindOf(inner).standIn(inner, world);
      return value === null ? [] : [[inner.id, inner.many ? [value] : value]];
    });
    return values.length === 0 ? null : Object.fromEntries(values);
  },
  automatic: 'items',
  check: (field, path, names) => [
    ...checkShape(field, path),
    ...(field.fields ?? []).flatMap((inner) =>
      kindOf(inner).check(inner, `${path}/fields/${inner.key}`, names),
    ),
  ],
  example: {
    field: {
      fields: [
        { key: 'name', kind: 'text' },
        { key: 'seat', kind: 'number' },
      ] as Field[],
    },
    raw: { name: 'Ann', seat: '7' },
    stored: { name: 'Ann', seat: 7 },
    printed: { name: 'Ann', seat: 7 },
    shown: 'Ann, 7',
    wrong: { shoe: 'left' },
  },
};

function displayed(values: Values, field: Field, world: DisplayWorld): string {
  return (field.fields ?? [])
    .flatMap((inner) =>
      valuesOf(values, inner.id).map((value) => kindOf(inner).display(value, inner, world)),
    )
    .join(', ');
}

/** What fields of a group cannot have, and how deep groups may stand. */
function checkShape(field: Field, path: string): Issue[] {
  const fields = field.fields ?? [];
  const wrong = (message: string, fix: string): Issue => ({
    code: 'wrong-group',
    path,
    message,
    fix,
  });
  const keys = fields.map((f) => f.key);
  const doubled = keys.find((k, i) => keys.indexOf(k) !== i);
  const ids = new Set(fields.map((f) => f.id));
  const odd = fields.find((f) => kindOf(f).derived || f.unique || f.sitsWithin || f.otherSide);
  return [
    ...(fields.length === 0 ? [wrong(`${field.label} is a group of no fields.`, 'Add one.')] : []),
    ...(depthOf(field) > MAX_DEPTH
      ? [wrong(`Groups stand at most ${MAX_DEPTH} deep.`, 'Take one level away.')]
      : []),
    ...(doubled !== undefined || ids.size < fields.length
      ? [wrong(`${field.label} has two fields of one key or id.`, 'Give each its own.')]
      : []),
    ...(odd
      ? [
          wrong(
            `${odd.label} cannot be in a group as it is: computed, unique, or the page it sits within.`,
            'Make it a field of the type itself.',
          ),
        ]
      : []),
  ];
}

function depthOf(field: Field): number {
  return 1 + Math.max(0, ...(field.fields ?? []).filter((f) => f.kind === 'group').map(depthOf));
}
