import type { Design } from '../design/spec.ts';
import type { Field } from '../design/field.ts';
import { kindOf } from '../design/kinds/index.ts';
import { sentence } from '../design/words.ts';
import type { TimingRule } from '../design/timing-spec.ts';
import { ruleWords } from '../timing/words.ts';
import type { DesignEdit } from './edit.ts';
import {
  type Json,
  type Part,
  type PartPath,
  isSingle,
  outerOf,
  partAt,
  sortWord,
} from './parts.ts';
import { type Step, partOf } from './steps.ts';

/** Properties whose names are not the words for them. */
const PROPERTY_WORDS: Readonly<Record<string, string>> = {
  address: 'address',
  clash: 'what an address that is taken leads to',
  retired: 'what retired pages answer',
  template: 'page template',
  naming: 'naming field',
  summary: 'summary field',
  where: 'conditions',
  sort: 'order',
  also: 'further types listed',
  pins: 'entries that stand first',
  each: 'pages of single values',
  feed: 'feed',
  visitor: 'what visitors do with its pages',
  pageSize: 'entries to a page',
  skip: 'how many of its first are left out',
  most: 'how many it has at most',
  empty: 'words when empty',
  css: 'style sheet',
  front: 'what “/” shows',
  url: 'address of the site',
  zone: 'time zone',
  retention: 'days for which versions are kept that were never public',
  'presets.author': 'whether bylines show who wrote it',
  'presets.date': 'which date bylines show',
  'presets.listed': 'whether listings show its entries',
  form: 'what the text may hold',
  marks: 'marks that may stand',
  blocks: 'blocks that may stand',
  levels: 'levels of headings',
  parts: 'parts that may stand in the text',
  styles: 'styles that may be used',
  'presets.picks': 'picks that new entries join',
  path: 'first part of its addresses',
  fallback: 'whether what has no words in it is shown in the site’s own language',
  do: 'what it does',
  after: 'how much later',
  'seo.title': 'title rule',
  'seo.description': 'description rule',
  'seo.index': 'whether search engines may list it',
  'seo.canonical': 'canonical address',
  'seo.picture': 'picture on share cards',
  'seo.sitemap': 'whether it is in the site map',
};

/**
 * An edit as a sentence, such as "Variety: title rule “{title}, saved”, was “{title}”"; the
 * design names what it speaks of, after the edit or before.
 */
export function describe(design: Design, edit: DesignEdit): string {
  const [first, ...more] = told(edit);
  const rest = more.length === 0 ? '' : `, and ${more.length} more`;
  return `${describeStep(design, first!)}${rest}`;
}

/** Every step of an edit as a sentence. */
export function describeSteps(design: Design, edit: DesignEdit): string[] {
  return told(edit).map((step) => describeStep(design, step));
}

/** The steps without those that take away what another step puts something in the place of. */
function told({ steps }: DesignEdit): Step[] {
  const added = steps.flatMap((step) => (step.do === 'add' ? [step.part as unknown as Field] : []));
  const removed = new Map(
    steps.flatMap((step) =>
      step.do === 'remove' ? [[step.was.id, step.was as unknown as Field]] : [],
    ),
  );
  const gone = new Set(
    added.flatMap(({ id, replaces }) => [
      ...(replaces ? [replaces.field] : []),
      ...[...removed.values()].filter((was) => was.replaces?.field === id).map((was) => was.id),
    ]),
  );
  return steps.filter((step) => step.do !== 'remove' || !gone.has(step.was.id));
}

function describeStep(design: Design, step: Step): string {
  const path = partOf(step);
  const where = placeName(design, path);
  const own = nameOf(design, path, step);
  switch (step.do) {
    case 'set': {
      const word = textWords(design, step.property) ?? propertyWords(step.property);
      const was = step.was === null ? '' : `, was ${valueWords(step.was)}`;
      const now = step.now === null ? 'taken away' : valueWords(step.now);
      return `${own}: ${word} ${now}${was}`;
    }
    case 'add': {
      const { replaces } = step.part as unknown as Field;
      if (replaces) return `${where}${own} holds ${holding(step.part)}, was ${holding(replaces)}`;
      return `${where}${sortWord(path) ?? 'part'} ${own} added`;
    }
    case 'remove':
      return `${where}${sortWord(path) ?? 'part'} ${own} removed`;
    case 'move':
      return `${where}${sortWord(path) ?? 'part'} ${own} moved`;
    case 'rename':
      return `${own}: key ${step.now}, was ${step.was}`;
  }
}

function holding(field: { kind: string; many: boolean } | Part): string {
  const { kind, many } = field as { kind: string; many: boolean };
  const { label, alwaysMany } = kindOf({ kind });
  return many && !alwaysMany ? `several of ${label.toLowerCase()}` : label.toLowerCase();
}

/** The parts in which a part stands, with a colon; '' where it is one at the top. */
function placeName(design: Design, path: PartPath): string {
  const outer = outerNames(design, path);
  return outer.length === 0 ? '' : `${outer.join(', ')}: `;
}

/** What the parts are called in which a part stands, the one at the top first. */
/** What the parts are called that a part stands in, the outermost first. */
export function outerNames(design: Design, path: PartPath): string[] {
  const outer = outerOf(path);
  if (outer === '' || isSingle(path)) return [];
  return [...outerNames(design, outer), labelOf(partAt(design, outer)) ?? outer];
}

function nameOf(design: Design, path: PartPath, step: Step): string {
  if (path === 'site') return 'Site';
  if (path === 'style') return 'Style';
  const part = step.do === 'add' ? step.part : step.do === 'remove' ? step.was : undefined;
  const own = labelOf((part as Part | undefined) ?? partAt(design, path));
  if (step.do !== 'set' && step.do !== 'rename') return own ?? path.split('/').at(-1)!;
  return [...outerNames(design, path), own ?? path.split('/').at(-1)!].join(', ');
}

/** What a part is called: by its label, else by what it names. */
export function labelOf(part: Part | undefined): string | undefined {
  if (part?.do !== undefined && part.after !== undefined)
    return `“${ruleWords(part as unknown as TimingRule, { fields: [] })}”`;
  const { label, key, from, field, block } = part ?? {};
  return [label, key, from, field, block].find((w) => typeof w === 'string') as string | undefined;
}

/** A property in words: "title rule". */
export function propertyWords(property: string): string {
  const known = PROPERTY_WORDS[property] ?? PROPERTY_WORDS[property.split('.')[0]!];
  return known ?? propertyName(property);
}

/** What a language says in place of a text, in words; null for any other property. */
function textWords(design: Design, property: string): string | null {
  const [, part, rest] = /^texts\.([^.]+)\.(.+)$/.exec(property) ?? [];
  if (part === undefined) return null;
  const name = part === 'site' ? 'Site' : labelOf(partAt(design, part));
  return `${propertyWords(rest!)} of ${[...outerNames(design, part), name ?? part].join(', ')}`;
}

function propertyName(property: string): string {
  return sentence(property.split('.').at(-1)!).toLowerCase();
}

/** What a part in a list of a property is called; nothing where that does not tell it all. */
function nameWithin(part: Part | null): string[] {
  const isTold = part?.do !== undefined || part?.label !== undefined;
  const name = isTold ? labelOf(part!) : undefined;
  return name === undefined ? [] : [name];
}

const LONG = 80;

function valueWords(value: Json): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return String(value);
  const names = Array.isArray(value)
    ? value.flatMap((v) => (typeof v === 'string' ? v : nameWithin(v as Part)))
    : [];
  const isNamed = Array.isArray(value) && names.length === value.length;
  const text =
    typeof value === 'string' ? value : isNamed ? names.join(', ') : JSON.stringify(value);
  if (isNamed && text.startsWith('“')) return text;
  return `“${text.length > LONG ? `${text.slice(0, LONG)}…` : text}”`;
}
