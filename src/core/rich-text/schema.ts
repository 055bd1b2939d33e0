import { type Attribute, MARKS, NODES, type NodeRule, type Place } from './nodes.ts';

type Schema = Record<string, unknown>;

const ref = (name: string): Schema => ({ $ref: `#/$defs/${name}` });

/** The JSON Schema (draft 2020-12) of rich text documents; where links may lead it does not say. */
export function richTextSchema(): Schema {
  const nodes = [...NODES].map(([type, rule]) => [type, nodeSchema(type, rule)] as const);
  const marks = [...MARKS].map(([type, { label, attrs }]) => {
    const own = objectOf({ type: { const: type }, attrs: attributesOf(attrs) }, ['type']);
    const needed = type === 'link' ? [...LINK_NEEDS] : requiredAttributes(attrs);
    return [
      `mark-${type}`,
      { title: label, ...own, ...(needed.length > 0 ? needsOf(needed) : {}) },
    ];
  });
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'A rich text document',
    ...objectOf({ type: { const: 'doc' }, content: listOf('blocks') }, ['type']),
    $defs: Object.fromEntries([...nodes, ...marks, ...GROUPS.map((g) => [g, groupSchema(g)])]),
  };
}

const GROUPS: readonly Place[] = ['blocks', 'inline', 'items', 'rows', 'cells'];

function groupSchema(group: Place): Schema {
  const types = [...NODES].flatMap(([type, rule]) => (rule.group === group ? [type] : []));
  // Documents of earlier versions have pictures among their blocks.
  const all = group === 'blocks' ? [...types, 'image'] : types;
  return { anyOf: all.map(ref) };
}

const listOf = (holds: Exclude<NodeRule['holds'], 'nothing'>): Schema => ({
  type: 'array',
  items: ref(holds),
});

function nodeSchema(type: string, { label, attrs, holds }: NodeRule): Schema {
  const needed = requiredAttributes(attrs);
  return {
    title: label,
    ...objectOf(
      {
        type: { const: type },
        attrs: attributesOf(attrs),
        marks: { type: 'array', items: { anyOf: [...MARKS.keys()].map((m) => ref(`mark-${m}`)) } },
        ...(type === 'text' ? { text: { type: 'string' } } : {}),
        content: holds === 'nothing' ? { type: 'array', maxItems: 0 } : listOf(holds),
      },
      ['type', ...(type === 'text' ? ['text'] : []), ...(needed.length > 0 ? ['attrs'] : [])],
    ),
    ...needsOf(needed),
  };
}

function objectOf(properties: Record<string, Schema>, required: string[]): Schema {
  return { type: 'object', required, properties };
}

/** Attributes by name; null counts as left out. */
function attributesOf(attrs: Readonly<Record<string, Attribute>>): Schema {
  const optional = (schema: Schema, required: true | undefined): Schema =>
    required ? schema : { anyOf: [schema, { type: 'null' }] };
  return {
    type: ['object', 'null'],
    properties: Object.fromEntries(
      Object.entries(attrs).map(([name, { schema, words, required }]) => [
        name,
        { description: `Is ${words}.`, ...optional(schema, required) },
      ]),
    ),
  };
}

function requiredAttributes(attrs: Readonly<Record<string, Attribute>>): string[] {
  return Object.entries(attrs).flatMap(([name, { required }]) => (required ? [name] : []));
}

/** One of these a link needs. */
const LINK_NEEDS = ['href', 'entry'] as const;

function needsOf(names: readonly string[]): Schema {
  const has = (name: string): Schema => ({
    required: ['attrs'],
    properties: {
      attrs: {
        type: 'object',
        required: [name],
        properties: { [name]: { type: ['string', 'object'] } },
      },
    },
  });
  return names.length === 0 ? {} : { anyOf: names.map(has) };
}
