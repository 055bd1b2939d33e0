import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { Stage } from '@/server/db/stage.ts';
import type { CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import type { Connection } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import type { SiteView } from '@/server/queries/site-view.ts';
import { openEdits } from '@/server/store/bench.ts';
import { PRESETS } from '@/core/design/presets.ts';
import type { Field } from '@/core/design/field.ts';
import type { Design } from '@/core/design/spec.ts';
import { entryDetail } from '@/server/queries/entry.ts';
import { starterDetail } from '@/server/queries/starters.ts';
import { keptDrawing, keptFont } from './drawings.ts';
import { kindSteps } from './random-edits.ts';
import type { Write } from './random-steps.ts';
import { DESIGN } from './random-site.ts';
import { setting } from './release.ts';

const FIELDS = DESIGN['types/variety.json'] as { fields: { key: string }[] };

type SubjectWrite = Extract<Write, { set: string; which: number }>;
type MediaWrite = Extract<Write, { do: `${string} medium` }>;
type Picking = Extract<Write, { until: number | null }>;

/** A field of a type, or of a group of one, by keys; undefined where it is not there. */
function fieldAt({ types }: Design, [type, ...keys]: readonly string[]) {
  const own = types.find(({ key }) => key === type);
  let found: { path: string; field: Field } | undefined;
  for (const key of keys) {
    const field = (found ? found.field : own)?.fields?.find((f) => f.key === key);
    if (!field) return undefined;
    found = { path: `${found?.path ?? `types/${own!.id}`}/fields/${field.id}`, field };
  }
  return found;
}

/** A random site that people go on writing; `done` counts what went through. */
export class LivedSite {
  readonly done = new Map<CommandName, number>();
  readonly refused: string[] = [];

  constructor(
    private readonly connection: Connection,
    private readonly view: SiteView,
    public wall: number,
  ) {}

  run(name: CommandName, input: unknown): void {
    const { connection, wall, done } = this;
    const result = runCommand(connection, name, COMMAND_LINE, input, { wallClock: wall });
    if (result.ok) done.set(name, (done.get(name) ?? 0) + 1);
    else this.refused.push(...result.issues.map(({ message }) => message));
  }

  private one(sql: string): unknown {
    return this.connection.driver.prepare(sql).pluck().get(this.wall);
  }

  /** Saves what an entry says in German, and has that live, or not any more. */
  private speak(
    { entry: id, title, then }: Extract<Write, { do: 'speak' }>,
    at: string | null,
  ): void {
    const detail = entryDetail(this.view, COMMAND_LINE, id, this.wall, this.wall, 'de');
    const seen = detail?.revision ?? null;
    const spoken = { language: 'de', field: 'title', value: title };
    if (seen !== null && at === null)
      this.run('changeEntries', { what: { do: 'setValue', ...spoken }, which: { ids: [id] } });
    else this.run('saveWords', { entry: id, language: 'de', values: { title }, seen });
    const plan = { entry: id, action: then, at, revision: null, language: 'de' };
    if (then !== null) this.run('planChange', plan);
  }

  /** Changes two subjects of a set, as they are by now. */
  private changeSubjects({ do: deed, set, which, other }: SubjectWrite): void {
    const keys = this.view.subjects(this.wall).all(set);
    if (keys.length === 0) return;
    const [one, two] = [keys[which % keys.length]!.key, keys[other % keys.length]!.key];
    const change = {
      slug: {
        ...{ do: 'set', key: one, slug: `s${other % 3}`, name: `Name ${other % 3}` },
        languages: other % 2 === 0 ? {} : { de: { name: `Wort ${other % 4}` } },
      },
      merge: { do: 'merge', keys: [one], into: two },
      move: { do: 'move', key: one, parent: other % 3 === 0 ? null : two, before: null },
      drop: { do: 'delete', keys: [one] },
    }[deed];
    this.run('changeSubjects', { set, change });
  }

  /** Picks, and changes what is picked, as it is by now. */
  private pickOrNot(what: Picking, later: (after: number | null) => string | null): void {
    const open = 'SELECT id FROM pick WHERE ends IS NULL OR ends > ? ORDER BY position, id';
    const read = (): number[] =>
      this.connection.driver.prepare(open).pluck().all(this.wall) as number[];
    if (what.do !== 'pick' && read().length === 0)
      for (const entry of ['g0', 'p1']) this.run('pick', { picks: 'on-the-shelf', entry });
    const ids = read();
    const [id, other] = [what.which, 'other' in what ? what.other : 0].map(
      (n) => ids[n % (ids.length + 1)] ?? null,
    );
    switch (what.do) {
      case 'pick': {
        const { entry, after, until } = what;
        const [from, to] = [later(after), later(until)];
        this.run('pick', { picks: 'on-the-shelf', entry, from, to, before: id });
        break;
      }
      case 'unpick':
        this.run('unpick', { id: id ?? 0 });
        break;
      case 'pick until':
        this.run('changePick', { id: id ?? 0, to: later(what.until) });
        break;
      case 'move pick':
        this.run('movePick', { id: id ?? 0, before: other });
    }
  }

  /** Does something to one of the media, as they are by now. */
  private changeMedia({ do: deed, which, other }: MediaWrite): void {
    const { driver } = this.connection;
    const ids = driver
      .prepare('SELECT DISTINCT id FROM media ORDER BY id')
      .pluck()
      .all() as string[];
    const id = ids[which % ids.length] ?? '';
    const file = (): object =>
      keptDrawing(dirname(driver.name), `#00${which % 10}`, 10 + (which % 90) + other);
    switch (deed) {
      case 'add medium':
        this.run('addFont', { name: `Face ${other}.woff2`, file: keptFont(dirname(driver.name)) });
        return this.run('addMedium', { name: `Folder/Ünew ${other}.png`, file: file() });
      case 'change medium':
        return this.run('changeMedium', { id, alt: `Alt ${other}`, focusX: other * 25 });
      case 'replace medium':
        return this.run('replaceMedium', { id, file: file() });
      case 'delete medium':
        return this.run('deleteMedium', { id });
      default: {
        const starts = driver.prepare('SELECT max(starts) FROM media WHERE id = ?').pluck().get(id);
        this.run('restoreMedium', { id, starts });
      }
    }
  }

  /** Brings varieties in from a table, into what was brought before where anything was. */
  private bringIn(names: readonly string[], publish: 'no' | 'yes'): void {
    const file = join(mkdtempSync(join(tmpdir(), 'bontel-stage-')), 'stage.db');
    const stage = new Stage(file);
    names.forEach((title, i) =>
      stage.add({
        ...{ source: `t.csv#${i}`, line: i + 2, body: null },
        values: { title, traits: `tall;${title}`, stock: `${i}`, like: names[0] },
      }),
    );
    stage.close();
    const fields = { title: 'title', traits: 'traits', stock: 'stock' };
    const mapping = {
      type: 'variety',
      fields,
      publish,
      gone: publish === 'yes' ? 'retire' : 'stay',
    };
    const source = this.one('SELECT min(id) FROM source WHERE ?');
    this.run('bringIn', { stage: file, source, name: 'Table', mapping });
    const change = this.one('SELECT max(id) FROM bulk_change WHERE undone = 0 AND ?');
    if (names.length % 2 === 0) this.run('undoChange', { change: change ?? 0 });
    rmSync(dirname(file), { recursive: true, force: true });
  }

  /** Does one thing, refused or not. */
  write(what: Write): void {
    const { connection, view, wall } = this;
    const [run, one] = [this.run.bind(this), this.one.bind(this)];
    const { design } = view.at(wall)!.site;
    const edits = openEdits(connection).map(({ id }) => id);
    const later = (after: number | null): string | null =>
      after === null ? null : new Date(wall + (after + 1) * 60_000).toISOString();
    switch (what.do) {
      case 'save': {
        const type = { v: 'variety', g: 'grower', p: 'page', s: 'story', t: 'part' }[
          what.entry[0]!
        ]!;
        const listed = what.title.length % 3 > 0 ? { [PRESETS]: { listed: false } } : {};
        const values = { title: what.title, ...listed };
        run('saveEntry', { id: what.entry, type, values, seen: null });
        break;
      }
      case 'save again': {
        const detail = entryDetail(view, COMMAND_LINE, what.entry, wall, wall);
        if (!detail) break;
        const { type, values } = detail;
        run('saveEntry', { id: what.entry, type: type.id, values, seen: null, note: 'Again' });
        break;
      }
      case 'speak':
        this.speak(what, later(what.after));
        break;
      case 'languages': {
        const part = { id: 'de', key: 'de' };
        const adding = { do: 'add', within: '', list: 'languages', after: null, part };
        const isThere = design.languages.length > 0;
        const steps: unknown[] = isThere ? setting(design, 'languages/de', what.set) : [adding];
        run('release', { edit: { steps }, at: later(what.after) });
        break;
      }
      case 'place':
        if (!one("SELECT id FROM entry WHERE type = 'part' AND deleted IS NULL AND ?"))
          run('saveEntry', { id: null, type: 'part', values: { title: 'Part' }, seen: null });
        run('moveEntry', { entry: what.entry, field: 'place', before: null });
        run('moveEntry', {
          entry: one("SELECT max(id) FROM entry WHERE type = 'part' AND deleted IS NULL AND ?"),
          field: 'place',
          before: null,
        });
        break;
      case 'desk':
        run('chooseColumns', { type: 'variety', columns: ['stock'] });
        for (const [name, shared] of [
          ['Mine', false],
          ['Ours', true],
        ])
          run('keepFilter', { name, shared, filters: { type: 'variety', state: 'live' } });
        run('dropFilter', { id: one('SELECT min(id) FROM saved_filter WHERE ?') });
        break;
      case 'many': {
        run('changeEntries', { what: what.what, which: { ids: what.entries } });
        const last = one('SELECT max(id) FROM bulk_change WHERE undone = 0 AND ? > 0');
        if (what.undo) run('undoChange', { change: last ?? 0 });
        break;
      }
      case 'refer': {
        const { entry: id, target, leads } = what;
        run('setReference', { entry: id, field: 'grower', target, leads });
        break;
      }
      case 'cancel':
        run('cancelPlan', { plan: one('SELECT min(id) FROM planned_change WHERE at > ?') });
        break;
      case 'by hand': {
        const { entry: id, path } = what;
        const [from, to] = [later(what.after), later(what.end)];
        run('setByHand', { entry: id, path, from, to });
        const last = one('SELECT max(id) FROM by_hand WHERE ? > 0') ?? 0;
        const sql = 'SELECT entry FROM by_hand WHERE id = ?';
        const whose = connection.driver.prepare(sql).pluck().get(last);
        if (what.ends) run('endByHand', { id: last, entry: String(whose ?? id) });
        break;
      }
      case 'delete':
        run('deleteEntry', { entry: what.entry });
        break;
      case 'starter': {
        run('makeStarter', { entry: what.entry });
        const id = one('SELECT max(id) FROM starter WHERE ?');
        const detail = starterDetail(view, COMMAND_LINE, { id: String(id) }, wall);
        if (!detail) break;
        const { type, values, saved } = detail;
        run('saveStarter', { id, type: type.id, name: `S ${wall}`, values, seen: saved });
        if (!what.keep) run('deleteStarter', { id });
        break;
      }
      case 'purge':
        run('purgeEntry', { entry: what.entry });
        break;
      case 'restore': {
        if (!one('SELECT id FROM entry WHERE deleted <= ?'))
          run('deleteEntry', { entry: what.entry });
        const gone = one('SELECT id FROM entry WHERE deleted IS NOT NULL AND ?') ?? what.entry;
        run('restoreEntry', { entry: gone });
        break;
      }
      case 'address':
      case 'fields': {
        const fields = FIELDS.fields.filter((f) => what.do === 'fields' && f.key !== what.without);
        const set = what.do === 'address' ? { address: what.pattern } : { fields };
        run('release', { edit: { steps: setting(design, 'types/variety', set) } });
        break;
      }
      case 'edit':
        run('editDesign', { steps: setting(design, what.part, what.set) });
        break;
      case 'release': {
        const drafts = what.draft === null ? [] : [{ entry: what.draft, revision: null }];
        const at = later(what.after);
        run('release', { edits: edits.slice(0, what.count), drafts, at });
        break;
      }
      case 'rename': {
        const found = fieldAt(design, what.field);
        if (!found) break;
        const { path: part, field } = found;
        const step = { do: 'rename', part, was: field.key, now: `${field.key}2` };
        run('release', { edit: { steps: [step] } });
        break;
      }
      case 'kind': {
        const found = fieldAt(design, what.field);
        if (!found) break;
        const { path, field } = found;
        const wanted = { kind: what.kind ?? field.kind, many: what.many };
        run('release', { edit: { steps: kindSteps(design, path, wanted) } });
        break;
      }
      case 'subject':
        run('addSubjects', { set: what.set, names: [what.name] });
        break;
      case 'no subject':
        run('addSubjects', { set: what.set, names: ['Gone'] });
        run('changeSubjects', { set: what.set, change: { do: 'delete', keys: ['gone'] } });
        break;
      case 'slug':
      case 'merge':
      case 'move':
      case 'drop':
        this.changeSubjects(what);
        break;
      case 'undo subjects': {
        const last = `SELECT max(max(starts, coalesce(ends, 0))) FROM subject
          WHERE "set" = '${what.set}' AND (starts > 0 OR ends > 0) AND ?`;
        if (one(last) === null)
          this.changeSubjects({ do: 'slug', set: what.set, which: 0, other: 0 });
        run('undoSubjects', { set: what.set, at: one(last) });
        break;
      }
      case 'pick':
      case 'unpick':
      case 'pick until':
      case 'move pick':
        this.pickOrNot(what, later);
        break;
      case 'bring in':
        this.bringIn(what.names, what.publish);
        break;
      case 'add medium':
      case 'change medium':
      case 'replace medium':
      case 'delete medium':
      case 'restore medium':
        this.changeMedia(what);
        break;
      case 'undo':
        run('undoEdit', {});
        break;
      case 'redo':
        run('undoEdit', {});
        run('redoEdit', {});
        break;
      case 'discard':
        run('discardEdits', { edits: edits.slice(0, 1) });
        break;
      case 'rebase':
        run('editDesign', { steps: setting(design, 'types/page', { plural: 'Leaves' }) });
        run('rebaseEdit', { edit: openEdits(connection).at(-1)?.id ?? 0 });
        break;
      case 'take back':
        if (one('SELECT count(*) FROM design_version WHERE ?') === 1)
          run('release', { edit: { steps: setting(design, 'types/page', { plural: 'Leaves' }) } });
        run('undoRelease', { release: one('SELECT max(id) FROM design_version WHERE ?') });
        break;
      default:
        run('planChange', {
          entry: what.entry,
          action: what.do,
          at: later(what.after),
          revision: null,
        });
    }
  }
}
