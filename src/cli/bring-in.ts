import { existsSync, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, dirname, join, resolve } from 'node:path';
import { stringify } from 'yaml';
import { guessMapping } from '@/core/intake/guess.ts';
import { type Mapping, mappingSpec } from '@/core/intake/mapping.ts';
import { type Issue, type Result, ok, refused } from '@/core/issue.ts';
import type { BroughtIn } from '@/server/commands/intake/bring-in.ts';
import { runCommand } from '@/server/commands/run.ts';
import { type Connection, openDatabase, problemOf } from '@/server/db/connection.ts';
import { readAs } from '@/server/files/read-as.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { dataFolder } from '@/server/process/data-folder.ts';
import { designsOf } from '@/server/store/design-store.ts';
import { statement } from '@/server/store/statement.ts';
import { keepStaged } from '@/server/uploads/keep-staged.ts';
import { type Staged, stageFile, stageFolder } from '@/server/uploads/stage-folder.ts';
import { unzip } from '@/server/uploads/unzip.ts';
import { BOUNDS } from '@/server/uploads/uploads.ts';
import { printJson, reportIssues } from './output.ts';

interface BringOptions {
  data?: string;
  as?: string;
  map?: string;
  json?: boolean;
  dryRun?: boolean;
}

/** `bontel load FOLDER --as TYPE --map FILE`: adds what other tools made as entries of a type. */
export async function bringInFolder(from: string, options: BringOptions): Promise<number> {
  const { json = false, dryRun: dry = false } = options;
  if (!existsSync(from)) return refuse([nothingThere(from)], json);
  const paths = dataFolder(options.data);
  const place = mkdtempSync(join(tmpdir(), 'bontel-bring-in-'));
  const archived = mkdtempSync(join(tmpdir(), 'bontel-unpacked-'));
  const connection = openDatabase(paths.database);
  try {
    const read = await unpacked(from, archived);
    if (!read.ok) return refuse(read.issues, json);
    const staged = await stageFolder(read.value, place, json ? {} : { tell });
    if (staged.seen.records === 0) return refuse([...staged.issues, noRecords(from)], json);
    const mapping = mappingOf(connection, staged, options);
    if (!mapping.ok) return refuse(mapping.issues, json);
    if (!dry) await keepStaged(stageFile(place), paths.folder);
    const name = basename(resolve(from)).slice(0, 80);
    const input = {
      ...{ stage: stageFile(place), source: sourceNamed(connection, name), name, dry },
      mapping: mapping.value,
    };
    const wallClock = Date.now();
    const result = runCommand(connection, 'bringIn', COMMAND_LINE, input, { wallClock });
    if (!result.ok) return refuse(result.issues, json);
    if (json) printJson({ ...result.value, dry, mapping: mapping.value, notRead: staged.issues });
    else report(result.value, staged, { dry, mapping: mapping.value, isGuess: !options.map });
    return 0;
  } catch (error) {
    throw problemOf(error, paths.database);
  } finally {
    connection.close();
    for (const folder of [place, archived]) rmSync(folder, { recursive: true, force: true });
  }
}

/** A folder, or a file, to read: what an archive holds is put into another folder first. */
async function unpacked(from: string, folder: string): Promise<Result<string>> {
  if (!/\.zip$/i.test(from) || !statSync(from).isFile()) return ok(from);
  const done = await unzip(from, folder, BOUNDS);
  return done.ok ? ok(folder) : done;
}

/** The mapping of the file that is named; else what names and values suggest. */
function mappingOf(
  connection: Connection,
  { seen }: Staged,
  { as, map }: BringOptions,
): Result<Mapping> {
  const site = designsOf(connection).at(Date.now())?.site;
  const given = map === undefined ? null : readAs(dirname(map), basename(map), mapFile);
  if (given && given.value === null) return refused(...given.issues);
  const key = as ?? given?.value?.type ?? '';
  const type = site?.typesByKey.get(key);
  if (!type)
    return refused({
      code: 'unknown-type',
      message: `There is no content type "${key}".`,
      fix: `Name one with --as: ${[...(site?.typesByKey.keys() ?? [])].join(', ')}.`,
    });
  return ok(given ? { ...given.value!, type: key } : guessMapping(seen, type));
}

const mapFile = mappingSpec.extend({ type: mappingSpec.shape.type.optional() });

/** What was brought from under a name before; null where nothing was. */
function sourceNamed(connection: Connection, name: string): string | null {
  const sql = 'SELECT id FROM source WHERE name = ? ORDER BY at DESC LIMIT 1';
  return statement<string>(connection, sql).pluck().get(name) ?? null;
}

function report(
  done: BroughtIn,
  staged: Staged,
  { dry, mapping, isGuess }: { dry: boolean; mapping: Mapping; isGuess: boolean },
): void {
  const say = (line: string): void => void process.stdout.write(`${line}\n`);
  const would = dry ? 'would be ' : '';
  say(`${done.created} ${would}new, ${done.changed} ${would}changed, ${done.same} the same`);
  if (done.gone.count > 0)
    say(`${done.gone.count} not there any more, ${done.gone.retired} retired`);
  if (done.subjects > 0) say(`${done.subjects} subjects ${would}added`);
  if (done.media > 0) say(`${done.media} files ${would}added`);
  for (const { message, fix, count, places } of done.refused)
    say(`${count} left out: ${message} ${fix} (${places.join(', ')})`);
  if (done.lost.count > 0)
    say(
      `${done.lost.count} pieces of texts (links, pictures, HTML) could not stand as written; words stay`,
    );
  for (const { path, line, words } of done.lost.first.slice(0, 10))
    say(`    ${path}:${line}: ${words}`);
  reportIssues(staged.issues);
  if (isGuess) say(`\nThe mapping was guessed; --map takes it from a file:\n${stringify(mapping)}`);
}

function refuse(issues: Issue[], json: boolean): number {
  if (json) printJson({ brought: false, issues });
  else reportIssues(issues);
  return 1;
}

function noRecords(path: string): Issue {
  return {
    code: 'no-records',
    path,
    message: 'There is nothing in it that could become an entry.',
    fix: 'Name a folder, a .zip, or a file of Markdown, CSV, JSON or YAML.',
  };
}

function nothingThere(path: string): Issue {
  return { code: 'no-folder', path, message: 'There is nothing there.', fix: 'Name a folder.' };
}

function tell(step: string): void {
  process.stderr.write(`${step} …\n`);
}
