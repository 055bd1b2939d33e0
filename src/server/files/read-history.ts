import type { Field } from '@/core/design/field.ts';
import { z } from 'zod';
import { mappingSpec } from '@/core/intake/mapping.ts';
import { contentFilters } from '@/core/content/filters.ts';
import { type Design, type ContentType, designSpec } from '@/core/design/spec.ts';
import type { SubjectVersion } from '@/core/design/subject-history.ts';
import { wordsByTag } from '@/core/design/subject-words.ts';
import { type DesignEdit, applySteps, editSpec, invertEdit } from '@/core/design-edit/edit.ts';
import { foldEdits } from '@/core/design-edit/fold.ts';
import type { Issue } from '@/core/issue.ts';
import { compileSite } from '@/core/site/compile.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import { parseInstant } from '@/core/time/parse.ts';
import { readAs } from './read-as.ts';
import { aboutMedia } from './read-media.ts';
import { memberSpec } from './read-picks.ts';

/** A release of a saved site, with the design it gave. */
export interface ReleaseToLoad {
  id: number;
  starts: Instant;
  design: Design;
  author: string;
  saved: Instant;
  /** Null where the design was put there as a whole. */
  edits: DesignEdit[] | null;
  published: { entry: string; revision: number }[];
  undoes: number | null;
}

/** What a saved site says of its past, its people and its bench. */
export interface SavedHistory {
  /** The instant of its last change: what was so by then are facts. */
  until: Instant;
  people: ReadonlyMap<string, string>;
  /** In the order in which they take hold; the first is that of the beginning. */
  releases: ReleaseToLoad[];
  bench: { person: string; made: Instant; edit: DesignEdit }[];
  /**
   * Subjects as they stood before, and those of sets that the design does not have any more; by the
   * ids of their sets.
   */
  subjects: SubjectBefore[];
  /** Of their sets the order of all that were ever in them. */
  subjectOrder: { set: string; keys: string[] }[];
  /** Since when subjects have stood as the folder has them, where not from the beginning. */
  subjectsSince: SubjectSince[];
  /** Who stood, or will stand, in picks that the design does not have now. */
  picks: { picks: string; members: z.output<typeof memberSpec>[] }[];
  /** Media as they were before, and since when those of now are as they are. */
  media: z.output<typeof historyFile>['media'];
  mediaSince: z.output<typeof historyFile>['mediaSince'];
  /** Entries of which nothing is left, with the addresses that they held. */
  purged: z.output<typeof historyFile>['purged'];
  /** Where content was brought in from. */
  sources: (z.output<typeof sourceFile> & { id: string })[];
  /** Every type there was or will be, by id, with all fields that it had or will have. */
  types: ReadonlyMap<string, ContentType>;
  /** Filters that people have kept, and columns that they have chosen. */
  desk: z.output<typeof historyFile>['desk'];
}

/** A subject as it stood over a stretch of time. */
export interface SubjectBefore extends SubjectVersion {
  set: string;
  author: string | null;
}

/** Since when a subject has stood as it stands, and who made it so. */
export interface SubjectSince {
  set: string;
  key: string;
  from: Instant;
  author: string | null;
}

const instant = z.string().transform((text, context): Instant => {
  const at = parseInstant(text, 'UTC');
  if (at !== null) return at;
  context.addIssue(`"${text.slice(0, 60)}" is no instant, such as 2026-03-12T08:00:00Z`);
  return z.NEVER;
});
const person = z.string().max(200);
const number = z.int().min(1);
const { steps } = editSpec.shape;
const edit = steps.transform((all): DesignEdit => ({ steps: all }));
const keptFilter = z.strictObject({
  id: z.string().max(64),
  name: z.string().min(1).max(80),
  person,
  shared: z.boolean(),
  filters: contentFilters,
});
const historyFile = z.strictObject({
  until: instant,
  design: z.strictObject({
    number,
    author: person,
    saved: instant,
    starts: instant.default(BEGINNING),
  }),
  people: z.record(person, z.string().max(1000)),
  subjects: z
    .array(
      z.strictObject({
        set: z.string(),
        key: z.string(),
        name: z.string(),
        slug: z.string(),
        description: z.string(),
        parent: z.string().nullable().default(null),
        picture: z.string().nullable().default(null),
        merged: z.string().nullable().default(null),
        languages: wordsByTag.default({}),
        from: instant.default(BEGINNING),
        to: instant.nullable().default(null),
        author: person.nullable().default(null),
      }),
    )
    .default([]),
  subjectOrder: z.array(z.strictObject({ set: z.string(), keys: z.array(z.string()) })).default([]),
  subjectsSince: z
    .array(
      z.strictObject({
        set: z.string(),
        key: z.string(),
        from: instant,
        author: person.nullable().default(null),
      }),
    )
    .default([]),
  picks: z.array(z.strictObject({ picks: z.string(), members: z.array(memberSpec) })).default([]),
  media: z
    .array(
      aboutMedia.options[1].extend({
        id: z.string().max(200),
        /** Path in the folder of what it was. */
        file: z.string().max(300),
        from: instant.default(BEGINNING),
        to: instant,
        author: person.nullable().default(null),
      }),
    )
    .default([]),
  mediaSince: z
    .array(
      z.strictObject({
        id: z.string().max(200),
        from: instant,
        author: person.nullable().default(null),
      }),
    )
    .default([]),
  /** Entries of which nothing is left, by the ids of their types, with what they held. */
  purged: z
    .array(
      z.strictObject({
        id: z.string().max(200),
        type: z.string().max(64),
        created: instant,
        /** When it was deleted, where it was before. */
        deleted: instant.optional(),
        purged: instant,
        held: z.array(
          z.strictObject({
            path: z.string().max(1024),
            from: instant,
            to: instant,
            language: z.string().max(35).optional(),
          }),
        ),
      }),
    )
    .default([]),
  /** What people have set up of their tables; types go by their ids. */
  desk: z
    .strictObject({
      filters: z.array(keptFilter).default([]),
      columns: z
        .array(
          z.strictObject({
            person,
            type: z.string().max(64),
            columns: z.array(z.string().max(80)).max(100),
          }),
        )
        .default([]),
    })
    .default({ filters: [], columns: [] }),
});
const releaseFile = z.strictObject({
  starts: instant,
  author: person,
  saved: instant,
  undoes: number.nullable().default(null),
  published: z.array(z.strictObject({ entry: z.string(), revision: number })).default([]),
  edits: z.array(edit).nullable().default(null),
  /** The design before, where taking the edits back does not lead there. */
  replaced: designSpec.optional(),
});
const benchFile = z.array(z.strictObject({ person, made: instant, steps }));

const sourceFile = z.strictObject({
  name: z.string().min(1).max(80),
  person,
  at: instant,
  /** Its type goes by its id. */
  mapping: mappingSpec,
  records: z.array(
    z.strictObject({
      record: z.string().max(2000),
      entry: z.string().max(200),
      revision: number,
      print: z.string().max(64),
    }),
  ),
});

/** The files of a saved site's history, by name. */
export const HISTORY_FILES = {
  history: historyFile,
  release: releaseFile,
  bench: benchFile,
  source: sourceFile,
};

type Given = z.output<typeof releaseFile> & { id: number; file: string };

/** Reads what a saved site says of its past; null without issues where the folder was not saved. */
export function readHistory(
  folder: string,
  files: readonly string[],
  design: Design,
): { history: SavedHistory | null; issues: Issue[] } {
  const given = files.filter((f) => f.startsWith('releases/'));
  if (!files.includes('history.yaml')) {
    const known = files.filter((f) => f === 'bench.yaml' || /^(history|sources)\//.test(f));
    const stray = [...known, ...given];
    return { history: null, issues: stray.slice(0, 1).map(notToTheEnd) };
  }
  const { value, issues } = readAs(folder, 'history.yaml', historyFile);
  if (value === null) return { history: null, issues };
  const reads = given.map((file) => readRelease(folder, file));
  const bench = files.includes('bench.yaml')
    ? readAs(folder, 'bench.yaml', benchFile)
    : { value: [], issues: [] };
  const sources = files
    .filter((f) => f.startsWith('sources/'))
    .map((file) => ({ file, ...readAs(folder, file, sourceFile) }));
  const wrong = [...reads, bench, ...sources].flatMap((r) => r.issues as Issue[]);
  if (wrong.length > 0) return { history: null, issues: wrong };
  const { history, issues: wrongDesigns } = historyOf(
    value,
    reads.flatMap(({ release }) => release ?? []),
    bench.value!,
    design,
  );
  if (history)
    history.sources = sources.map(({ file, value: own }) => ({ id: idOf(file), ...own! }));
  return { history, issues: wrongDesigns };
}

/** The id of a source, by its file. */
function idOf(file: string): string {
  return file.slice('sources/'.length).replace(/\.[a-z]+$/, '');
}

/** Puts together what the files of a history say. */
function historyOf(
  file: z.output<typeof historyFile>,
  later: Given[],
  bench: z.output<typeof benchFile>,
  design: Design,
): { history: SavedHistory | null; issues: Issue[] } {
  const { design: given, people, ...rest } = file;
  const { until } = rest;
  const { number: id, ...first } = given;
  const all: Given[] = [
    { ...first, id, file: 'history.yaml', edits: null, published: [], undoes: null },
    ...later,
  ].sort((a, b) => a.starts - b.starts || a.id - b.id);
  const designs = designsOf(all, design, until);
  if (designs.issues.length > 0) return { history: null, issues: designs.issues };
  const releases = all.map(({ file: _, replaced: __, ...release }, i) => ({
    ...release,
    design: designs.all[i]!,
  }));
  const history = {
    ...rest,
    people: new Map(Object.entries(people)),
    releases,
    bench: bench.map(({ steps: own, ...about }) => ({ ...about, edit: { steps: own } })),
    sources: [],
    types: typesOf([...designs.all, design]),
  };
  return { history, issues: [] };
}

/** Says that a folder was not saved to its end, by a file that shows it. */
export function notToTheEnd(path: string): Issue {
  return {
    code: 'history-missing',
    path,
    line: 1,
    message: 'This belongs to a saved site, and the folder has no history.yaml.',
    fix: 'Save the site again: saving was cut short, or the file was taken out.',
  };
}

function readRelease(folder: string, file: string): { release: Given | null; issues: Issue[] } {
  const id = Number(/^releases\/(\d{1,15})\.(ya?ml|json)$/.exec(file)?.[1]);
  if (!id)
    return {
      release: null,
      issues: [
        {
          code: 'unknown-file',
          path: file,
          line: 1,
          message: 'Releases are .yaml files named by their numbers, and this is none.',
          fix: 'Take it out of the folder.',
        },
      ],
    };
  const { value, issues } = readAs(folder, file, releaseFile);
  return { release: value && { ...value, id, file }, issues };
}

/**
 * The designs that releases gave and will give, from the one of the folder: back by taking edits
 * back, forward by applying them.
 */
function designsOf(
  releases: readonly Given[],
  now: Design,
  until: Instant,
): { all: Design[]; issues: Issue[] } {
  const all: Design[] = [];
  const here = releases.findLastIndex(({ starts }) => starts <= until);
  if (here < 0) return { all, issues: [notLeading(releases[0]!, [])] };
  all[here] = now;
  for (let i = here; i > 0; i--) {
    const { replaced, edits } = releases[i]!;
    const before = replaced ?? takenBack(all[i]!, edits);
    const issues = before ? compileSite(before).issues : [];
    if (!before || issues.length > 0) return { all, issues: [notLeading(releases[i]!, issues)] };
    all[i - 1] = before;
  }
  for (let i = here + 1; i < releases.length; i++) {
    const edits = (releases[i]!.edits ?? []).map((edit, id) => ({ id, edit }));
    const { design, stuck } = foldEdits(all[i - 1]!, edits);
    const issues = stuck.flatMap((s) => s.issues);
    if (stuck.length > 0) return { all, issues: [notLeading(releases[i]!, issues)] };
    all[i] = design;
  }
  return { all, issues: [] };
}

function takenBack(design: Design, edits: DesignEdit[] | null): Design | null {
  let before = design;
  for (const edit of edits?.toReversed() ?? []) {
    const done = applySteps(before, invertEdit(edit));
    if (!done.ok) return null;
    before = done.value.design;
  }
  return edits === null ? null : before;
}

function notLeading({ file }: Given, [first]: Issue[]): Issue {
  return {
    code: 'wrong-release',
    path: file,
    line: 1,
    message: `The design of the folder does not follow from this release.${first ? ` ${first.message}` : ''}`,
    fix: 'Change designs on the bench, not in a saved folder that has releases; or take history.yaml, bench.yaml, releases/ and the facts out.',
  };
}

/** Types by id, as the last design that has them, with the fields that others had besides. */
function typesOf(designs: readonly Design[]): Map<string, ContentType> {
  const types = new Map<string, ContentType>();
  for (const { types: all } of designs)
    for (const type of all) {
      const known = types.get(type.id)?.fields ?? [];
      types.set(type.id, { ...type, fields: withGone(type.fields, known) });
    }
  return types;
}

/** Fields, and those known from before that are not among them; in groups alike. */
function withGone(fields: readonly Field[], known: readonly Field[]): Field[] {
  const gone = known.filter(({ id }) => fields.every((field) => field.id !== id));
  const all = fields.map((field) => {
    const before = known.find(({ id }) => id === field.id)?.fields;
    return field.fields && before ? { ...field, fields: withGone(field.fields, before) } : field;
  });
  return [...all, ...gone];
}
