import {
  SubjectHistory,
  type SubjectVersion,
  type SubjectsNow,
} from '@/core/design/subject-history.ts';
import type { Design } from '@/core/design/spec.ts';
import { type SpokenSubject, subjectIn } from '@/core/design/subject-words.ts';
import type { Subject } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { Instant, Interval, Validity } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { asOf } from './as-of.ts';
import { statement } from './statement.ts';
import { SUBJECT_COLUMNS, type SubjectRow, subjectOf } from './subject-rows.ts';

/** What is read of subjects as of an instant; sets go by the keys that a design gives them. */
export interface Subjects {
  get(set: string, key: string): Subject | null;
  all(set: string): Subject[];
  keysWithin(set: string, key: string): string[];
  gone(set: string): string[];
}

/** Subjects as of any instant, and how long they stay as they are. */
export interface SubjectsOver {
  at(at: Instant): Subjects;
  /** The same as a site has them in its language. */
  in(site: CompiledSite): SubjectsOver;
  /** Tells since and until when a key has stood for what it stands for. */
  tell(set: string, key: string, validity: Validity): void;
  /** Tells since and until when the same keys have counted as each other. */
  tellShape(set: string, validity: Validity): void;
  /** Tells since and until when all of a set has been what it is. */
  tellAll(set: string, validity: Validity): void;
}

const DEEPEST = 50;

/**
 * What a key of a set, by its id, stands for as of an instant, looked up alone: for writes, which
 * must not read a whole set. Null where nothing does.
 */
export function subjectAt(
  connection: Connection,
  set: string,
  key: string,
  at: Instant,
): SpokenSubject | null {
  const read = statement<SubjectRow & { set: string }>(
    connection,
    `SELECT "set", ${SUBJECT_COLUMNS} FROM subject
       WHERE "set" = ? AND key = ? AND ${asOf('')}`,
  );
  let next = key;
  for (let i = 0; i < DEEPEST; i++) {
    const found = read.get(set, next, at, at);
    if (!found) return null;
    const { merged, ...subject } = subjectOf(found);
    if (merged === null) return subject;
    next = merged;
  }
  return null;
}

/** Whether a subject was there at or before an instant, be it gone or not. */
export function wasThere(connection: Connection, set: string, key: string, at: Instant): boolean {
  const sql = 'SELECT 1 FROM subject WHERE "set" = ? AND key = ? AND starts <= ?';
  return statement(connection, sql).get(set, key, at) !== undefined;
}

/** All subjects, each set read when it is asked for, and again whenever subjects have changed. */
export class SubjectStore {
  private readonly sets = new Map<string, SubjectHistory>();
  private readonly spoken = new Map<string, WeakMap<SpokenSubject, Subject>>();
  private generation = -1;

  constructor(private readonly connection: Connection) {}

  /** The subjects by the keys that their sets have in a design, as they stand when first asked for. */
  under({ setIds, design }: Pick<CompiledSite, 'setIds' | 'design'>): SubjectsOver {
    const read = new Map<string, SubjectHistory>();
    const history = (set: string): SubjectHistory => {
      const known = read.get(set) ?? this.history(setIds.get(set) ?? '');
      read.set(set, known);
      return known;
    };
    return {
      at: (at) => {
        const now = (set: string): SubjectsNow => history(set).at(at);
        const named = (set: string, found: SpokenSubject): Subject => {
          const said = this.said(found, design);
          return said.set === set ? said : { ...said, set };
        };
        return {
          get: (set, key) => {
            const found = now(set).get(key);
            return found && named(set, found);
          },
          all: (set) =>
            now(set)
              .all()
              .map((subject) => named(set, subject)),
          keysWithin: (set, key) => now(set).keysWithin(key),
          gone: (set) => now(set).gone(),
        };
      },
      in: (site) => this.under(site),
      tell: (set, key, validity) => history(set).tell(key, validity),
      tellShape: (set, validity) => history(set).tellShape(validity),
      tellAll: (set, validity) => history(set).tellAll(validity),
    };
  }

  /** A subject in the language of a design, worked out once for each. */
  private said(found: SpokenSubject, design: Design): Subject {
    if (!design.edition) return found;
    const tag = design.site.language;
    const all = this.spoken.get(tag) ?? new WeakMap<SpokenSubject, Subject>();
    this.spoken.set(tag, all);
    let subject = all.get(found);
    if (!subject) all.set(found, (subject = subjectIn(found, design)));
    return subject;
  }

  /** All that a set, by its id, was and is. */
  history(set: string): SubjectHistory {
    const now =
      statement<number>(
        this.connection,
        `SELECT generation FROM site_change WHERE scope = 'subjects'`,
      )
        .pluck()
        .get() ?? 0;
    if (now !== this.generation) this.sets.clear();
    this.generation = now;
    let known = this.sets.get(set);
    if (!known) this.sets.set(set, (known = new SubjectHistory(set, this.versions(set))));
    return known;
  }

  private versions(set: string): SubjectVersion[] {
    return statement<SubjectRow & Interval>(
      this.connection,
      `SELECT ${SUBJECT_COLUMNS}, starts AS "from", ends AS "to"
         FROM subject WHERE "set" = ? ORDER BY position, key, starts`,
    )
      .all(set)
      .map(subjectOf);
  }
}
