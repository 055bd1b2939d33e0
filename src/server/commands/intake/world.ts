import { basename } from 'node:path';
import { type IntakeWorld, pathFrom } from '@/core/intake/map-record.ts';
import type { SourceRecord } from '@/core/intake/record.ts';
import { isPicture } from '@/core/design/media-formats.ts';
import { searchKey } from '@/core/text.ts';
import type { Stage } from '../../db/stage.ts';
import { markdownToRichText } from '../../files/markdown.ts';
import { TooMuch } from '../../files/markdown-world.ts';
import { mediumNow } from '../../store/media.ts';
import { statement } from '../../store/statement.ts';
import { type CommandContext, Refused } from '../definition.ts';
import { addMedium } from '../media/add-medium.ts';
import { addSubjects } from '../subjects/add-subjects.ts';

/** What was made, and what was lost, on the way. */
export interface Besides {
  subjects: Set<string>;
  media: Set<string>;
  /** Words of what leads nowhere any more, with their places. */
  findings: { path: string; line: number; words: string }[];
  lost: number;
}

const MOST_FINDINGS = 50;

/** Looks for what records name, in the site and among what was sent with them. */
export function intakeWorld(
  context: CommandContext,
  stage: Stage,
  types: { mapped: string },
  besides: Besides,
): IntakeWorld {
  const entry = entryFinder(context, stage, types);
  const medium: IntakeWorld['medium'] = (named, from) =>
    mediumOf(context, stage, { named, from, besides });
  return {
    entry,
    medium,
    subject: (set, name) => subjectOf(context, set, name, besides),
    richText: (text, from) => richText(text, from, { entry, medium, besides, context }),
  };
}

function entryFinder(
  { connection, site }: CommandContext,
  stage: Stage,
  types: { mapped: string },
): IntakeWorld['entry'] {
  const byName = statement<string>(
    connection,
    `SELECT e.id FROM revision AS r JOIN entry AS e ON e.id = r.entry AND e.newest = r.number
      WHERE r.search = @name AND e.deleted IS NULL
        AND (@types IS NULL OR e.type IN (SELECT value FROM json_each(@types))) LIMIT 1`,
  ).pluck();
  const byId = statement<string>(
    connection,
    'SELECT id FROM entry WHERE id = ? AND deleted IS NULL',
  ).pluck();
  return (keys, named, from) => {
    const isMapped = keys === null || keys.includes(types.mapped);
    const path = pathFrom(from, named);
    const ids = keys && JSON.stringify(keys.flatMap((k) => site.typesByKey.get(k)?.id ?? []));
    return (
      (isMapped && path ? stage.entryOf('file', path) : null) ??
      (isMapped ? stage.entryOf('record', named) : null) ??
      byId.get(named) ??
      (isMapped ? stage.entryOf('name', searchKey(named)) : null) ??
      byName.get({ name: searchKey(named), types: ids }) ??
      null
    );
  };
}

function mediumOf(
  context: CommandContext,
  stage: Stage,
  { named, from, besides }: { named: string; from: SourceRecord; besides: Besides },
): string | null {
  const path = pathFrom(from, named);
  const staged = path === null ? null : stage.file(path);
  if (staged) {
    const { path: own, file: _, ...file } = staged;
    const added = addMedium.run(context, { name: basename(own), file });
    if (added.isNew) besides.media.add(added.id);
    return added.id;
  }
  const name = named.replace(/^(\.\/|\/)?media\//, '');
  return mediumNow(context.connection, name)?.id ?? null;
}

/** Key of a subject by its name, or by "above > below"; what is not there is made. */
function subjectOf(
  context: CommandContext,
  key: string,
  name: string,
  besides: Besides,
): string | null {
  const set = context.site.setIds.get(key);
  const { kind } = context.site.design.subjectSets.find((s) => s.id === set) ?? {};
  if (set === undefined || name.trim() === '') return null;
  const known = statement<string>(
    context.connection,
    `SELECT key FROM subject WHERE "set" = @set AND ends IS NULL AND merged IS NULL
       AND (key = @name OR name = @name COLLATE NOCASE) ORDER BY key = @name DESC LIMIT 1`,
  ).pluck();
  const parts = kind === 'tree' ? name.split(/\s*[>›]\s*/) : [name];
  let parent: string | null = null;
  for (const part of parts) {
    const found = known.get({ set, name: part.trim() });
    if (found !== undefined) {
      parent = found;
      continue;
    }
    const above = kind === 'tree' ? parent : null;
    const made = addSubjects.run(context, {
      set,
      names: [part.trim().slice(0, 200)],
      parent: above,
    });
    besides.subjects.add(`${set}/${made.added[0]!.key}`);
    parent = made.added[0]!.key;
  }
  return parent;
}

interface TextNeeds extends Pick<IntakeWorld, 'entry' | 'medium'> {
  besides: Besides;
  context: CommandContext;
}

/** @throws Refused where a text is too much to be read */
function richText(text: string, from: SourceRecord, needs: TextNeeds): unknown {
  const { entry, medium, besides, context } = needs;
  const first = lineOf(text, from);
  try {
    return markdownToRichText(text, {
      findEntry: (url) => (pathFrom(from, url) === null ? null : entry(null, url, from)),
      findPicture: (url) => pictureOf(context, medium(url, from)),
      hasPicture: () => false,
      isForeign: true,
      tell: ({ line, words }) => {
        besides.lost += 1;
        if (besides.findings.length < MOST_FINDINGS)
          besides.findings.push({ path: from.source, line: first + line - 1, words });
      },
    });
  } catch (error) {
    if (!(error instanceof TooMuch)) throw error;
    const { words } = error.finding;
    throw new Refused({ code: 'too-much', message: words, fix: 'Make several entries of it.' });
  }
}

/** The line at which a text begins in its file. */
function lineOf(text: string, { body, line }: SourceRecord): number {
  const start = body?.text.indexOf(text) ?? -1;
  return start < 0 ? line : body!.line + body!.text.slice(0, start).split('\n').length - 1;
}

function pictureOf({ connection }: CommandContext, id: string | null): string | null {
  return id !== null && isPicture(mediumNow(connection, id) ?? { mime: '' }) ? id : null;
}
