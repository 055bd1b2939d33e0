import { kindOf } from '../design/kinds/index.ts';
import { withinSentence } from '../design/words.ts';
import type { OutlineField, OutlineType, OutlineWorld } from './read.ts';
import { addressOf, setKeyOf } from './steps.ts';

/** What a line was understood as, in sentences. */
export function typeSentence(type: OutlineType, { site }: OutlineWorld): string {
  const { label, known, makesPages, fields, passedOver } = type;
  if (known) {
    const there =
      passedOver.length === 0 ? '' : ` It has ${listed(passedOver, site.language)} already.`;
    return `The type ${label} is there; its new fields are added.${there}`;
  }
  const naming = fields.find(({ kind }) => kind === 'text');
  const named = naming ? `, named by ${withinSentence(naming.label, site.language)}` : '';
  if (type.isSingle)
    return `A type ${label}${named}. There is one entry of it, and all patterns can read it.`;
  if (!makesPages) return `A type ${label}${named}. It makes no pages of its own.`;
  const address = naming ? addressOf(type, naming, site.language) : '';
  return `A type ${label}${named}. Its pages stand at ${address}.`;
}

/** Kinds whose words say that there are several. */
const SAYS_MANY = new Set(['tags', 'reference', 'group']);

/** What a field was understood as: "one Grower", "tags of the new set Traits". */
export function fieldWords(
  field: OutlineField,
  types: readonly OutlineType[],
  design: OutlineWorld,
): string {
  const { kind, many, required, isGuessed } = field;
  const marks = [required ? 'required' : '', isGuessed ? 'by its name' : ''].filter(Boolean);
  const what = kindWords(field, types, design) + (many && !SAYS_MANY.has(kind) ? ', several' : '');
  return `${what}${marks.length === 0 ? '' : ` (${marks.join(', ')})`}`;
}

function kindWords(
  field: OutlineField,
  outlined: readonly OutlineType[],
  design: OutlineWorld,
): string {
  const { kind, many, options, set, types, sitsWithin } = field;
  if (kind === 'choice') return options.length === 0 ? 'a choice' : `one of ${options.join(', ')}`;
  if (set !== '') {
    const isNew = !design.subjectSets.some((s) => s.key === setKeyOf(field, design));
    return `${kindOf({ kind }).words} of the ${isNew ? 'new set' : 'set'} ${set}`;
  }
  if (kind === 'group' && field.fields.length > 0) {
    const inner = field.fields.map((f) => `${f.label}: ${fieldWords(f, outlined, design)}`);
    return `${many ? 'groups' : 'a group'} (${inner.join('; ')})`;
  }
  if (kind !== 'reference') return kindOf({ kind }).words;
  const isLost = types.length === 0 && field.findings.length > 0;
  if (isLost) return kindOf({ kind }).words;
  const names = types.map((key) => labelOf(key, many, outlined, design));
  const where = names.length === 0 ? (many ? 'entries' : 'entry') : names.join(' or ');
  return `${many ? 'any number of' : 'one'} ${where}${sitsWithin ? ', which its page sits within' : ''}`;
}

function labelOf(
  key: string,
  many: boolean,
  outlined: readonly OutlineType[],
  { types }: OutlineWorld,
): string {
  const type = outlined.find((t) => t.key === key) ?? types.find((t) => t.key === key);
  return (many ? type?.plural : type?.label) ?? key;
}

function listed(names: readonly string[], language: string): string {
  const words = names.map((name) => withinSentence(name, language));
  return words.length < 2
    ? (words[0] ?? '')
    : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}
