import { type Issue, ok } from '../../issue.ts';
import { unknownName } from '../../did-you-mean.ts';
import { one } from '../../pattern/types.ts';
import type { DesignNames, Field } from '../field.ts';
import { slugText } from '../../pattern/slug.ts';
import { sentence } from '../words.ts';
import { key } from '../key.ts';
import { type FieldKind, PLAIN, notA } from './definition.ts';

/** The kind of set that fields of a kind take their subjects from. */
export function setKindOf(kind: string): 'tags' | 'tree' {
  return kind === 'tags' ? 'tags' : 'tree';
}

/** What tags and categories share: their values are keys of subjects in a set. */
export function subjectsOf(
  kind: 'tags' | 'tree',
): Omit<FieldKind, 'kind' | 'label' | 'words' | 'doc' | 'spoken' | 'example'> {
  return {
    ...PLAIN,
    properties: {
      /** The subject set they are taken from. */
      set: key.optional(),
    },
    valueType: () => one('text'),
    parse: (raw, field) => {
      const subject = typeof raw === 'number' ? String(raw) : raw;
      return typeof subject === 'string' && subject.trim() !== ''
        ? ok(subject.trim())
        : notA(field, 'a subject', raw, 'Give the key of a subject.');
    },
    asText: (stored) => sentence(String(stored)),
    fromText: (text, language) => slugText(text, language) || null,
    control: 'subject',
    otherControls: ({ many }) => (many ? ['checks'] : ['radio', 'search']),
    display: (stored, field, world) =>
      world.nameOf({ of: 'subject', key: String(stored), set: field.set ?? '' }) ?? String(stored),
    family: 'members',
    sortable: false,
    target: (field) => ({ of: 'subjects', set: field.set ?? '', tree: kind === 'tree' }),
    mentions: (stored, field) => [{ of: 'subject', key: String(stored), set: field.set ?? '' }],
    standIn: (field, world) => world.subjects(field.set ?? '')[0] ?? null,
    check: (field, path, names) => checkSet(field, path, names, kind),
  };
}

function checkSet(
  field: Field,
  path: string,
  { sets }: DesignNames,
  wanted: 'tags' | 'tree',
): Issue[] {
  const set = sets.find((s) => s.key === field.set);
  if (!set) {
    const message =
      field.set === undefined
        ? `${field.label} names no subject set.`
        : `There is no subject set "${field.set}".`;
    return [
      unknownName(
        path,
        message,
        field.set ?? '',
        sets.map((s) => s.key),
      ),
    ];
  }
  if (set.kind === wanted) return [];
  return [
    {
      code: 'wrong-set',
      path,
      message: `"${set.key}" is a set of kind ${set.kind}; ${field.label} wants ${wanted}.`,
      fix: `Name a set of kind ${wanted}.`,
    },
  ];
}
