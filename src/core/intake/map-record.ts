import type { Field } from '../design/field.ts';
import { targetOf, valueKindOf } from '../design/field-values.ts';
import type { ContentType } from '../design/spec.ts';
import type { Issue } from '../issue.ts';
import { OWN_KEYS, type SourceRecord, headingOf, valueAt } from './record.ts';
import type { Mapping } from './mapping.ts';
import { plainDate, plainList, plainNumber, plainYesNo } from './plain-values.ts';

/** What records name that stands elsewhere, by the words they name it with; null where nothing does. */
export interface IntakeWorld {
  /** Key of a subject of a set, by its name; made where it may be. */
  subject(set: string, name: string): string | null;
  /** Id of an entry, of some types or of any: by id, name, path, or the path of its record. */
  entry(types: readonly string[] | null, named: string, from: SourceRecord): string | null;
  /** Id of a medium: by name, or by the path of its file among the records'. */
  medium(named: string, from: SourceRecord): string | null;
  /** A text as a rich text document, its links and pictures led to where they stand now. */
  richText(text: string, from: SourceRecord): unknown;
}

/** A record as an entry of a type takes it. */
export interface MappedRecord {
  /** What it is known by when the same is brought again. */
  id: string;
  /** As forms give them, by field id. */
  values: Record<string, unknown>;
  /** ISO 8601, or a day; null where it does not say. */
  created: string | null;
  /** A name; null where it does not say. */
  author: string | null;
  draft: boolean;
  /** A path; null where it does not say. */
  address: string | null;
  issues: Issue[];
}

/** What a record says for the fields of a type and the places besides. */
export function mapRecord(
  record: SourceRecord,
  mapping: Mapping,
  type: ContentType,
  world: IntakeWorld,
): MappedRecord {
  const fields = new Map(type.fields.map((field) => [field.key, field]));
  const mapped: MappedRecord = {
    ...{ id: record.source, values: {}, created: null, author: null, draft: false },
    ...{ address: null, issues: [] },
  };
  const names = new Set(Object.keys(mapping.fields));
  for (const [key, to] of Object.entries(mapping.fields)) {
    const given = key === OWN_KEYS.body ? bodyOf(record, names, mapping) : valueAt(record, key);
    if (given === undefined || given === null || given === '') continue;
    const field = fields.get(to);
    // Of several keys for one field the first counts that says something.
    if (field && mapped.values[field.id] !== undefined) continue;
    if (field) mapped.values[field.id] = asGiven(given, field, { record, mapping, world, mapped });
    else place(mapped, to, given, mapping);
  }
  return mapped;
}

/** The text of a record; without its heading where that names the entry, or says its name again. */
function bodyOf(record: SourceRecord, names: ReadonlySet<string>, { fields }: Mapping): unknown {
  const text = record.body?.text ?? '';
  const { heading, rest } = headingOf(text);
  const named = fields[OWN_KEYS.heading];
  if (heading === null || named === undefined) return text.trim();
  const others = [...names].filter((key) => fields[key] === named && key !== OWN_KEYS.heading);
  const title = others.map((key) => valueAt(record, key)).find((value) => value);
  return title === undefined || String(title).trim() === heading ? rest.trim() : text.trim();
}

function place(mapped: MappedRecord, to: string, value: unknown, { days }: Mapping): void {
  if (to === '@id') mapped.id = String(value);
  if (to === '@author') mapped.author = nameIn(value);
  if (to === '@draft') mapped.draft = plainYesNo(value) ?? false;
  if (to === '@address') mapped.address = addressOf(String(value));
  if (to !== '@created') return;
  mapped.created = plainDate(value, days);
  if (mapped.created === null) mapped.issues.push(wrong('When it was written', 'a date', value));
}

/** A person's name: as it is, the first of several, or that of an object. */
function nameIn(value: unknown): string | null {
  const one: unknown = Array.isArray(value) ? value[0] : value;
  const name = typeof one === 'object' && one !== null ? (one as { name?: unknown }).name : one;
  return typeof name === 'string' && name.trim() !== '' ? name.trim().slice(0, 200) : null;
}

/** An address as a path: of a whole one its path, of a word a path of it. */
function addressOf(value: string): string | null {
  const path = value.trim().replace(/^[a-z][a-z0-9+.-]*:\/\/[^/]*/i, '');
  const bare = path.replace(/[?#].*$/, '').replace(/\.(html?|php|aspx?)$/i, '');
  const whole = `/${bare.replace(/^\/+|\/+$/g, '')}`;
  return whole === '/' ? null : whole;
}

interface At {
  record: SourceRecord;
  mapping: Mapping;
  world: IntakeWorld;
  mapped: MappedRecord;
}

function asGiven(value: unknown, field: Field, at: At): unknown {
  const all = field.many ? plainList(value) : [value];
  const given = all.map((one) => oneGiven(one, field, at)).filter((one) => one !== null);
  return field.many ? given : (given[0] ?? null);
}

function oneGiven(value: unknown, field: Field, at: At): unknown {
  const { world, record, mapping, mapped } = at;
  const fail = (words: string): null => {
    mapped.issues.push(wrong(field.label, words, value));
    return null;
  };
  const target = targetOf(field);
  const text = typeof value === 'object' ? '' : String(value).trim();
  if (target?.of === 'subjects')
    return world.subject(target.set, text) ?? fail(`one of ${target.set}`);
  if (target?.of === 'entries')
    return world.entry(target.types, text, record) ?? fail('an entry that is there');
  if (target?.of === 'media') return world.medium(text, record) ?? fail('a picture that is there');
  switch (valueKindOf(field)) {
    case 'richtext':
      return typeof value === 'string' ? world.richText(value, record) : value;
    case 'number':
      return plainNumber(value, mapping.decimals) ?? fail('a number');
    case 'yesno':
      return plainYesNo(value) ?? fail('yes or no');
    case 'date':
      return plainDate(value, mapping.days)?.slice(0, 10) ?? fail('a date');
    case 'datetime':
      return plainDate(value, mapping.days) ?? fail('a date and time');
    case 'text':
      if (Array.isArray(value)) return value.join(', ');
      return typeof value === 'object' && !(value instanceof Date) ? value : String(value);
    default:
      return value;
  }
}

const MOST_SHOWN = 60;

/** What a value is not; the value itself stands in `path`, so that reasons are counted together. */
function wrong(label: string, words: string, value: unknown): Issue {
  const given = typeof value === 'string' ? value : JSON.stringify(value);
  return {
    code: 'wrong-value',
    path: given.length > MOST_SHOWN ? `${given.slice(0, MOST_SHOWN)}…` : given,
    message: `${label} is ${words}, and something else stands there.`,
    fix: 'Mend it where it comes from, map it to another field, or leave it out.',
  };
}

/** The path among records that a relative address leads to from one; null for addresses of others. */
export function pathFrom({ source }: SourceRecord, address: string): string | null {
  if (/^[a-z][a-z0-9+.-]*:|^\/\/|^#/i.test(address)) return null;
  const bare = decoded(address.replace(/[?#].*$/, ''));
  const folder = source.includes('/') ? source.slice(0, source.lastIndexOf('/')) : '';
  const parts = bare.startsWith('/') ? [] : folder.split('/');
  for (const part of bare.split('/')) {
    if (part === '..') parts.pop();
    else if (part !== '' && part !== '.') parts.push(part);
  }
  return parts.filter((part) => part !== '').join('/');
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
