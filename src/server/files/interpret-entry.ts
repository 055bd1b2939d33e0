import { isPicture } from '@/core/design/media-formats.ts';
import { isDerived } from '@/core/design/computed.ts';
import { valuesAs } from '@/core/design/conversion.ts';
import { checkMentions, checkWhole, type ValueWorld } from '@/core/design/check-values.ts';
import { parseValue, valueKindOf } from '@/core/design/field-values.ts';
import type { Given, LimitWorld } from '@/core/design/kinds/definition.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { ORDER } from '@/core/design/other-order.ts';
import { PRESETS } from '@/core/design/presets.ts';
import type { SubjectToLoad } from './read-design.ts';
import { subjectsBefore } from './subjects-before.ts';
import { didYouMean } from '@/core/did-you-mean.ts';
import type { Issue } from '@/core/issue.ts';
import { publishedBy } from '@/core/publication/plans.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { RawEntry } from './entry-form.ts';
import { readFacts } from './entry-facts.ts';
import { TimingReader, type Told } from './entry-timing.ts';
import { markdownToRichText } from './markdown.ts';
import { TooMuch } from './markdown-world.ts';
import { mayBeStored } from './may-be-stored.ts';
import { EntriesTogether } from './entries-together.ts';
import { FurtherWords } from './further-words.ts';
import type { EntryToLoad, RevisionToLoad, StarterToLoad } from './to-load.ts';
import type { RawStarter } from './read-starters.ts';
import { parseMoment } from '@/core/time/parse.ts';
import { type SavedHistory, notToTheEnd } from './read-history.ts';

const PURGED = 'an entry that was purged (history.yaml)';

/** What names the type of an entry, or of a starter. */
type Typed = Pick<RawEntry, 'type'> & { form: { typeId?: string | undefined } };

/**
 * Turns raw entries into values, revisions, plans and by-hand addresses; problems gather in
 * `issues`.
 */
export class EntryReader {
  readonly issues: Issue[] = [];
  /** What loads all the same, and is hardly meant. */
  readonly findings: Issue[] = [];
  private readonly given: Given & LimitWorld;
  /** Tags of all further languages that the site has or had, by their ids. */
  private readonly tags: ReadonlyMap<string, string>;
  private readonly world: ValueWorld;
  private readonly ids = new Map<string, EntryToLoad>();
  private readonly starters = new Map<string, StarterToLoad>();
  private readonly subjects = new Map<string, Set<string>>();
  /** Where the entry of each single type stands, by the type's id. */
  private readonly singles = new Map<string, string>();
  /** The types, where there still are, of entries of which nothing is left. */
  private readonly purged: ReadonlyMap<string, ContentType | undefined>;
  /** Which file and line text that is read as Markdown begins at. */
  private place = { file: '', line: (): number => 1 };

  constructor(
    private readonly design: Design,
    subjects: Pick<SubjectToLoad, 'set' | 'key'>[],
    private readonly media: ReadonlyMap<string, { mime: string; bytes: number }>,
    private readonly now: Instant,
    /** Where the site was saved: its past. */
    private readonly history: SavedHistory | null = null,
  ) {
    this.given = {
      now,
      zone: design.site.zone,
      file: (id) => media.get(id) ?? null,
      richText: (source) => this.richText(source),
    };
    this.tags = tagsEver(design, history);
    this.purged = new Map(history?.purged.map(({ id, type }) => [id, history.types.get(type)]));
    for (const { set, key } of [...subjects, ...subjectsBefore(design, history)])
      this.subjects.set(set, (this.subjects.get(set) ?? new Set()).add(key));
    this.world = {
      typeOf: (id) => (this.ids.get(id)?.type ?? this.purged.get(id))?.key ?? null,
      has: (mention) =>
        mention.of === 'media'
          ? media.has(mention.key)
          : (this.subjects.get(mention.set)?.has(mention.key) ?? false),
      candidates: (mention) => {
        if (mention.of === 'media') return media.keys();
        return mention.of === 'entry' ? this.ids.keys() : (this.subjects.get(mention.set) ?? []);
      },
    };
  }

  private richText(source: string): ReturnType<typeof markdownToRichText> {
    return markdownToRichText(source, {
      hasPicture: (id) => isPicture(this.media.get(id) ?? { mime: '' }),
      tell: ({ line, words }) =>
        this.findings.push({
          code: 'words-only',
          path: this.place.file,
          line: this.place.line() + line - 1,
          message: words,
          fix: 'Write a path of this site or an address of http, https, mailto or tel; put pictures in media/.',
        }),
    });
  }

  /** An entry ready to be written; null where anything of it is wrong. */
  read(raw: RawEntry): EntryToLoad | null {
    const type = this.typeOf(raw);
    const told = this.tellOf(raw);
    if (!type) return this.unknownType(raw, told);
    if (raw.form.was && !this.history) {
      this.issues.push(notToTheEnd(raw.file));
      return null;
    }
    const id = raw.form.id ?? raw.defaultId;
    const other = this.ids.get(id)?.raw.file ?? (this.purged.has(id) ? PURGED : undefined);
    if (other) {
      const message = `The id "${id}" is also that of ${other}.`;
      told(['entry', 'id'], 'doubled-id', message, 'Give each entry an id of its own.');
      return null;
    }
    const before = this.issues.length;
    this.checkSingle(type, raw, told);
    const timing = new TimingReader(this.design, this.now, raw, told, this.findings);
    const revisions = this.revisions(raw, type, timing, told);
    const plans = timing.plans(revisions);
    const { language } = this.design.site;
    const asRead = { id, raw, revisions, language, tags: this.tags, timing, told };
    const entry: EntryToLoad = {
      id,
      type,
      created: timing.created() ?? revisions[0]?.saved ?? this.now,
      author: raw.form.author,
      deleted: timing.deleted(),
      revisions,
      plans,
      byHand: timing.byHand(),
      held: timing.held(),
      facts: this.history && readFacts({ ...asRead, until: this.history.until }),
      raw: { file: raw.file, lineOf: raw.lineOf },
    };
    this.ids.set(id, entry);
    revisions.forEach((revision) => this.checkStored(type, revision, told));
    if (!entry.facts) this.checkPublished(entry, told);
    return this.issues.length === before ? entry : null;
  }

  /** A starter ready to be written; null where anything of it is wrong. */
  readStarter(raw: RawStarter): StarterToLoad | null {
    const { file, lineOf, id, form, fields } = raw;
    const told = this.tellOf(raw);
    const type = this.typeOf(raw);
    if (!type) return this.unknownType(raw, told);
    const other = this.starters.get(id);
    if (other) {
      const message = `The id "${id}" is also that of ${other.raw.file}.`;
      told(['starter', 'id'], 'doubled-id', message, 'Give each starter an id of its own.');
      return null;
    }
    const before = this.issues.length;
    const saved =
      form.saved === undefined
        ? this.now
        : parseMoment(form.saved, this.now, this.design.site.zone);
    if (saved === null)
      told(
        ['starter', 'saved'],
        'wrong-instant',
        `"${form.saved}" is no instant.`,
        'Write ISO 8601.',
      );
    const { presets, stored, name, author } = form;
    const values = this.values({ file, lineOf, body: null }, type, fields, []);
    const besides = { ...stored, ...(presets ? { [PRESETS]: presets } : {}) };
    this.checkStored(type, { stored }, told);
    if (this.issues.length > before) return null;
    const starter = { id, type, name, values, stored: besides, author, saved: saved!, raw };
    this.starters.set(id, starter);
    return starter;
  }

  /**
   * Names what entries point at that is not there, and pages that sit within each other too deep.
   */
  checkTogether(): void {
    const together = new EntriesTogether(this.design, this.ids);
    for (const entry of this.ids.values()) {
      const told = entry.facts ? this.findingOf(entry.raw) : this.tellOf(entry.raw);
      const seen = new Set<string>();
      for (const { values } of entry.revisions)
        for (const issue of checkMentions(entry.type.fields, values, this.world)) {
          if (seen.has(issue.message)) continue;
          seen.add(issue.message);
          told([issue.path ?? ''], issue.code, issue.message, issue.fix ?? '');
        }
      together.check(entry, told);
    }
    for (const { type, values, raw } of this.starters.values()) {
      const told = this.history ? this.findingOf(raw) : this.tellOf(raw);
      for (const { path = '', code, message, fix = '' } of checkMentions(
        type.fields,
        values,
        this.world,
      ))
        told([path], code, message, fix);
    }
  }

  /** Of a site that was saved: what was so when it was written may not be wanted any more. */
  private findingOf(raw: EntryToLoad['raw']): Told {
    return (at, code, message, fix) =>
      this.findings.push({ code, path: raw.file, line: raw.lineOf(at), message, fix });
  }

  private tellOf(raw: EntryToLoad['raw']): Told {
    return (at, code, message, fix) => {
      this.issues.push({ code, path: raw.file, line: raw.lineOf(at), message, fix });
    };
  }

  private revisions(
    raw: RawEntry,
    type: ContentType,
    timing: TimingReader,
    told: Told,
  ): RevisionToLoad[] {
    const newest = this.values(raw, type, this.withBody(raw, type, told), []);
    const older = raw.form.revisions.map((r, i) => ({
      ...(r.whole ? {} : newest),
      ...this.values(raw, type, r.values, ['entry', 'revisions', i, 'values']),
    }));
    const words = new FurtherWords(this.design, told, (fields, at) =>
      this.values({ ...raw, body: null }, type, fields, at),
    );
    const spoken = words.read(type, raw.form.languages, ['entry', 'languages']);
    const spokenBefore = raw.form.revisions.map(({ languages, whole }, i) =>
      languages === undefined && !whole
        ? spoken
        : words.read(type, languages, ['entry', 'revisions', i, 'languages']),
    );
    const besides = [...raw.form.revisions, raw.form].map(
      ({ stored, presets, order, name, note }) => ({
        stored: {
          ...stored,
          ...(presets ? { [PRESETS]: presets } : {}),
          ...(order ? { [ORDER]: order } : {}),
        },
        ...{ name, note },
      }),
    );
    return timing.revisions([...older, newest]).map((revision, i): RevisionToLoad => ({
      ...revision,
      ...besides[i]!,
      languages: spokenBefore[i] ?? spoken,
    }));
  }

  /** The type of an entry: as the design has it, else as the last one did that had it. */
  private typeOf({ type, form: { typeId } }: Typed): ContentType | undefined {
    if (typeId !== undefined) return this.history?.types.get(typeId);
    return this.design.types.find((t) => t.key === type);
  }

  /** What is stored as it is has to be of a kind that its field had at some time. */
  private checkStored(
    { id: typeId }: ContentType,
    { stored }: Pick<RevisionToLoad, 'stored'>,
    told: Told,
  ): void {
    const fields = this.history?.types.get(typeId)?.fields ?? [];
    for (const [id, value] of Object.entries(stored)) {
      const field = fields.find((f) => f.id === id);
      const languages = (value as { languages?: object } | null)?.languages;
      const all = languages ? Object.values(languages) : [value];
      if (!field || all.every((one) => mayBeStored(one, field, this.given))) continue;
      const message = `What is stored for ${field.label} is none of its kind.`;
      told(
        ['entry', 'stored', id],
        'wrong-value',
        message,
        'Take it out, or write it under its key.',
      );
    }
  }

  /** Of a single type there is one entry. */
  private checkSingle(
    { id, label, single }: ContentType,
    { form, file }: RawEntry,
    told: Told,
  ): void {
    if (!single || form.deleted !== undefined) return;
    const first = this.singles.get(id);
    this.singles.set(id, first ?? file);
    if (first === undefined) return;
    const message = `There is one ${label} and no more, and one stands in ${first}.`;
    told(['entry'], 'single-type', message, 'Leave one of them out.');
  }

  private unknownType(raw: Typed, told: Told): null {
    const keys = this.design.types.map((t) => t.key);
    const otherwise = 'Put the file in a folder named after a type, or set entry.type.';
    const message = `There is no content type "${raw.type}".`;
    told(['entry', 'type'], 'unknown-type', message, didYouMean(raw.type, keys, otherwise));
    return null;
  }

  private withBody(raw: RawEntry, type: ContentType, told: Told): Record<string, unknown> {
    if (raw.body === null || raw.body.text.trim() === '') return raw.fields;
    const field = type.fields.find(
      (f) => valueKindOf(f) === 'richtext' && !Object.hasOwn(raw.fields, f.key),
    );
    if (field) return { ...raw.fields, [field.key]: raw.body.text };
    const message = `${type.label} has no rich text field for the text below the front matter.`;
    told([], 'no-body-field', message, 'Add such a field to the type, or remove the text.');
    return raw.fields;
  }

  private values(
    raw: Pick<RawEntry, 'file' | 'lineOf' | 'body'>,
    type: ContentType,
    fields: Record<string, unknown>,
    at: (string | number)[],
  ): Values {
    const told = this.tellOf(raw);
    const values: Values = {};
    for (const [key, given] of Object.entries(fields)) {
      const field = type.fields.find((f) => f.key === key);
      if (!field) {
        const keys = type.fields.map((f) => f.key);
        const fix = didYouMean(key, keys, `It has: ${keys.slice(0, 30).join(', ')}.`);
        told([...at, key], 'unknown-field', `${type.label} has no field "${key}".`, fix);
        continue;
      }
      if (isDerived(field)) {
        const message = `${field.label} is computed, and not written.`;
        told([...at, key], 'computed', message, 'Take it out; its pattern says what it is.');
        continue;
      }
      const isBody = raw.body !== null && given === raw.body.text;
      const line = (): number => (isBody ? raw.body!.line : raw.lineOf([...at, key]));
      this.place = { file: raw.file, line };
      const parsed = this.parse(() => parseValue(given, field, this.given));
      if (!parsed) continue;
      if (parsed.ok) values[field.id] = parsed.value;
      else
        for (const issue of parsed.issues)
          told([...at, key], issue.code, issue.message, issue.fix ?? '');
    }
    return values;
  }

  /** What reading gives; null with an issue where a text is too much to be read. */
  private parse<T>(read: () => T): T | null {
    try {
      return read();
    } catch (error) {
      if (!(error instanceof TooMuch)) throw error;
      const { line, words } = error.finding;
      this.issues.push({
        code: 'too-much',
        path: this.place.file,
        line: this.place.line() + line - 1,
        message: words,
        fix: 'Make several entries of it.',
      });
      return null;
    }
  }

  /** Every revision that goes public must be whole. */
  private checkPublished({ type, plans, revisions }: EntryToLoad, told: Told): void {
    const published = new Set(
      plans.flatMap((p) => (p.do === 'publish' ? (publishedBy(p, revisions) ?? []) : [])),
    );
    const newest = revisions.at(-1)!;
    if (published.size === 0 && plans.some((p) => p.do === 'publish')) published.add(newest);
    const seen = new Set<string>();
    for (const { values } of published)
      for (const { path = '', code, message, fix = '' } of checkWhole(
        type.fields,
        valuesAs(type.fields, values, this.design.site),
        this.given,
      )) {
        if (!seen.has(path)) told([path], code, message, fix);
        seen.add(path);
      }
  }
}

/** Tags of all further languages that a site has or had, by their ids. */
function tagsEver(design: Design, history: SavedHistory | null): Map<string, string> {
  const designs = [...(history?.releases ?? []).map((release) => release.design), design];
  return new Map(
    designs.flatMap((one) => one.languages.map(({ id, language }) => [id, language] as const)),
  );
}
