import type { Issue } from '@/core/issue.ts';
import { nearest } from '@/core/text.ts';
import { checkByHand } from '@/core/address/path.ts';
import type { ByHand } from '@/core/address/model.ts';
import { parseValue } from '@/core/design/field-types.ts';
import type { Given } from '@/core/design/kinds/definition.ts';
import type { ContentType, Design, Field } from '@/core/design/spec.ts';
import { type Subject, type Values, valuesOf } from '@/core/design/values.ts';
import { isBlank } from '@/core/pattern/types.ts';
import type { Plan, Revision } from '@/core/publication/model.ts';
import { parseMoment } from '@/core/time/parse.ts';
import { type Instant, BEGINNING } from '@/core/time/interval.ts';
import type { RawEntry } from './entry-form.ts';
import { markdownToRichText } from './markdown.ts';

/** An entry ready to be written, with where it came from. */
export interface EntryToLoad {
  id: string;
  type: ContentType;
  created: Instant;
  author: string;
  revisions: Revision[];
  plans: Plan[];
  byHand: ByHand[];
  raw: RawEntry;
}

/** Turns raw entries into values, revisions, plans and by-hand addresses; problems gather in `issues`. */
export class EntryReader {
  readonly issues: Issue[] = [];
  /** What loads all the same, and is hardly meant. */
  readonly findings: Issue[] = [];
  private readonly given: Given;
  private readonly ids = new Map<string, EntryToLoad>();
  private readonly subjects = new Map<string, Set<string>>();

  constructor(
    private readonly design: Design,
    subjects: Subject[],
    private readonly media: ReadonlySet<string>,
    private readonly now: Instant,
  ) {
    this.given = { now, zone: design.site.zone, markdown: markdownToRichText };
    for (const { set, key } of subjects)
      this.subjects.set(set, (this.subjects.get(set) ?? new Set()).add(key));
  }

  read(raw: RawEntry): EntryToLoad | null {
    const type = this.design.types.find((t) => t.key === raw.type);
    if (!type) {
      const near = nearest(
        raw.type,
        this.design.types.map((t) => t.key),
      );
      return this.fail(
        raw,
        ['entry', 'type'],
        'unknown-type',
        `There is no content type "${raw.type}".`,
        near
          ? `Did you mean "${near}"?`
          : 'Put the file in a folder named after a type, or set entry.type.',
      );
    }
    const id = raw.form.id ?? raw.defaultId;
    if (this.ids.has(id))
      return this.fail(
        raw,
        ['entry', 'id'],
        'doubled-id',
        `The id "${id}" is also that of ${this.ids.get(id)!.raw.file}.`,
        'Give each entry an id of its own.',
      );
    const before = this.issues.length;
    const revisions = this.revisions(
      raw,
      type,
      this.values(raw, type, this.withBody(raw, type), []),
    );
    const plans = this.plans(raw, revisions);
    const byHand = this.byHand(raw);
    const created =
      this.moment(raw, raw.form.created, ['entry', 'created']) ?? revisions[0]?.saved ?? this.now;
    const entry: EntryToLoad = {
      id,
      type,
      created,
      author: raw.form.author,
      revisions,
      plans,
      byHand,
      raw,
    };
    this.ids.set(id, entry);
    if (plans.some((p) => p.do === 'publish'))
      this.checkRequired(raw, type, revisions.at(-1)?.values ?? {});
    return this.issues.length === before ? entry : null;
  }

  /** Names references to entries that are not there, or of a type the field does not take. */
  checkReferences(): void {
    for (const { type, revisions, raw } of this.ids.values()) {
      for (const field of type.fields.filter((f) => f.kind === 'reference')) {
        const targets = new Set(revisions.flatMap((r) => valuesOf(r.values, field.id).map(String)));
        for (const target of targets) this.checkReference(raw, field, target);
      }
    }
  }

  private checkReference(raw: RawEntry, field: Field, target: string): void {
    const found = this.ids.get(target);
    if (!found) {
      const near = nearest(target, this.ids.keys());
      this.fail(
        raw,
        [field.key],
        'unknown-entry',
        `${field.label} points at "${target}", and there is no such entry.`,
        near ? `Did you mean "${near}"?` : 'Give the id of an entry.',
      );
    } else if (field.types && !field.types.includes(found.type.key)) {
      this.fail(
        raw,
        [field.key],
        'wrong-type',
        `${field.label} takes ${field.types.join(' or ')}, and "${target}" is ${found.type.key}.`,
        'Point it at another entry.',
      );
    }
  }

  private withBody(raw: RawEntry, type: ContentType): Record<string, unknown> {
    if (raw.body === null || raw.body.trim() === '') return raw.fields;
    const field = type.fields.find((f) => f.kind === 'richtext' && !(f.key in raw.fields));
    if (!field) {
      this.fail(
        raw,
        [],
        'no-body-field',
        `${type.label} has no rich text field for the text below the front matter.`,
        'Add such a field to the type, or remove the text.',
      );
      return raw.fields;
    }
    return { ...raw.fields, [field.key]: raw.body };
  }

  private values(
    raw: RawEntry,
    type: ContentType,
    fields: Record<string, unknown>,
    at: (string | number)[],
  ): Values {
    const values: Values = {};
    for (const [key, given] of Object.entries(fields)) {
      const field = type.fields.find((f) => f.key === key);
      if (!field) {
        const keys = type.fields.map((f) => f.key);
        const near = nearest(key, keys);
        this.fail(
          raw,
          [...at, key],
          'unknown-field',
          `${type.label} has no field "${key}".`,
          near ? `Did you mean "${near}"?` : `It has: ${keys.join(', ')}.`,
        );
        continue;
      }
      const parsed = parseValue(given, field, this.given);
      if (!parsed.ok)
        for (const issue of parsed.issues)
          this.issues.push({ ...issue, path: raw.file, line: raw.lineOf([...at, key]) });
      else {
        this.checkMembers(raw, field, parsed.value, [...at, key]);
        values[field.id] = parsed.value;
      }
    }
    return values;
  }

  private checkMembers(raw: RawEntry, field: Field, value: unknown, at: (string | number)[]): void {
    const known =
      field.kind === 'media'
        ? this.media
        : field.kind === 'tags' || field.kind === 'category'
          ? (this.subjects.get(field.set ?? '') ?? new Set<string>())
          : null;
    if (!known) return;
    for (const key of valuesOf({ value }, 'value').map(String)) {
      if (known.has(key)) continue;
      const near = nearest(key, known);
      const what = field.kind === 'media' ? 'picture' : `subject in "${field.set}"`;
      this.fail(
        raw,
        at,
        'unknown-name',
        `There is no ${what} "${key}".`,
        near
          ? `Did you mean "${near}"?`
          : field.kind === 'media'
            ? 'Add it below media/.'
            : `Add it to subjects/${field.set}.yaml.`,
      );
    }
  }

  private checkRequired(raw: RawEntry, type: ContentType, values: Values): void {
    for (const field of type.fields) {
      if (field.required && isBlank(values[field.id]))
        this.fail(
          raw,
          [field.key],
          'required',
          `${field.label} is required, and it is blank.`,
          'Fill it in.',
        );
    }
  }

  private revisions(raw: RawEntry, type: ContentType, newest: Values): Revision[] {
    const { form } = raw;
    const older = form.revisions.map((r, i): Revision => {
      const at = ['entry', 'revisions', i];
      const values = { ...newest, ...this.values(raw, type, r.values, [...at, 'values']) };
      return {
        number: i + 1,
        saved: this.moment(raw, r.saved, [...at, 'saved']) ?? 0,
        values,
        author: r.author ?? form.author,
      };
    });
    const number = older.length + 1;
    const all = [
      ...older,
      { number, saved: this.savedAt(raw, number), values: newest, author: form.author },
    ];
    all.forEach((r, i) => {
      if (i > 0 && r.saved <= all[i - 1]!.saved) {
        const at = i < older.length ? ['entry', 'revisions', i, 'saved'] : ['entry', 'saved'];
        this.fail(
          raw,
          at,
          'revision-order',
          `Revision ${r.number} is not saved later than revision ${r.number - 1}.`,
          i < older.length
            ? 'Order them by their saved instants.'
            : 'Set entry.saved to when the newest values were saved.',
        );
      }
    });
    return all;
  }

  /** When the newest revision was saved: as given, else when it first was needed, else created, else now. */
  private savedAt(raw: RawEntry, number: number): Instant {
    const { form } = raw;
    const given = this.moment(raw, form.saved, ['entry', 'saved']);
    if (given !== null) return given;
    const uses = [
      ...form.live
        .filter((l) => l.revision === number || (l.revision === null && number === 1))
        .map((l) => l.from),
      ...form.plans
        .filter(
          (p) =>
            p.do === 'publish' && (p.revision === number || (p.revision === null && number === 1)),
        )
        .map((p) => p.at),
    ];
    const instants = [...uses, ...(form.created === undefined ? [] : [form.created])].flatMap(
      (text) => parseMoment(text, this.now, this.design.site.zone) ?? [],
    );
    const earliest = Math.min(
      this.now,
      ...(number === 1
        ? instants
        : uses.flatMap((t) => parseMoment(t, this.now, this.design.site.zone) ?? [])),
    );
    return earliest;
  }

  private plans(raw: RawEntry, revisions: Revision[]): Plan[] {
    const plans: Omit<Plan, 'sequence'>[] = [];
    const intervals = raw.form.live.map((l, i) => {
      const at = ['entry', 'live', i];
      const from = this.moment(raw, l.from, at);
      const to = l.to === null ? null : this.moment(raw, l.to, at);
      if (from !== null && to !== null && to <= from)
        this.fail(
          raw,
          at,
          'empty-interval',
          'This live interval ends before it starts.',
          'Let it end later, or leave the end out.',
        );
      this.checkRevision(raw, at, l.revision, from, revisions);
      return { from: from ?? 0, to, revision: l.revision };
    });
    for (const { from, to, revision } of intervals.sort((a, b) => a.from - b.from)) {
      plans.push({ at: from, do: 'publish', revision });
      if (to !== null) plans.push({ at: to, do: 'retire', revision: null });
    }
    raw.form.plans.forEach((p, i) => {
      const at = this.moment(raw, p.at, ['entry', 'plans', i]);
      this.checkRevision(raw, ['entry', 'plans', i], p.revision, at, revisions);
      if (at !== null) plans.push({ at, do: p.do, revision: p.revision });
    });
    const earliest = revisions[0]?.saved ?? 0;
    const idle = plans.find((p) => p.do === 'publish' && p.at < earliest);
    if (idle)
      this.findings.push({
        code: 'nothing-to-publish',
        path: raw.file,
        line: raw.lineOf(['entry', 'live']),
        message: `A publication at ${new Date(idle.at).toISOString()} does nothing: the first revision was saved later.`,
        fix: 'Set entry.saved (or the first of entry.revisions) to an instant before it.',
      });
    return plans
      .map((p, sequence) => ({ ...p, sequence }))
      .sort((a, b) => a.at - b.at || a.sequence - b.sequence);
  }

  private checkRevision(
    raw: RawEntry,
    at: (string | number)[],
    number: number | null,
    from: Instant | null,
    revisions: Revision[],
  ): void {
    if (number === null || from === null) return;
    const revision = revisions.find((r) => r.number === number);
    if (!revision)
      this.fail(
        raw,
        at,
        'unknown-revision',
        `There is no revision ${number}; there are ${revisions.length}.`,
        'Revisions count from 1, the oldest.',
      );
    else if (revision.saved > from)
      this.fail(
        raw,
        at,
        'revision-order',
        `Revision ${number} was saved after it goes live here.`,
        'Set its saved instant earlier.',
      );
  }

  private byHand(raw: RawEntry): ByHand[] {
    return raw.form.address.map(({ path, from, to }, i) => {
      const at = ['entry', 'address', i];
      const wrong = checkByHand(path);
      if (wrong !== null)
        this.fail(raw, at, 'wrong-address', `${path}: ${wrong}`, 'Write it like "/about/us".');
      return {
        path,
        from: this.moment(raw, from ?? undefined, at) ?? BEGINNING,
        to: this.moment(raw, to ?? undefined, at),
      };
    });
  }

  private moment(raw: RawEntry, text: string | undefined, at: (string | number)[]): Instant | null {
    if (text === undefined) return null;
    const instant = parseMoment(text, this.now, this.design.site.zone);
    if (instant === null)
      this.fail(
        raw,
        at,
        'wrong-instant',
        `"${text}" is no instant.`,
        'Write ISO 8601, such as 2026-03-12T08:00 or 2026-03-12T08:00:00Z, or relative: now + PT5M, today - P3D at 08:00.',
      );
    return instant;
  }

  private fail(
    raw: RawEntry,
    at: (string | number)[],
    code: string,
    message: string,
    fix: string,
  ): null {
    this.issues.push({ code, path: raw.file, line: raw.lineOf(at), message, fix });
    return null;
  }
}
