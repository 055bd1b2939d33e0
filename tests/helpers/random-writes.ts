import fc from 'fast-check';
import type { CommandName } from '@/server/commands/index.ts';
import { runCommand } from '@/server/commands/run.ts';
import type { Connection } from '@/server/db/connection.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import type { SiteView } from '@/server/queries/site-view.ts';
import { openEdits } from '@/server/store/bench.ts';
import { FIELD_KINDS } from '@/core/design/kinds/index.ts';
import type { Field } from '@/core/design/field.ts';
import type { Design } from '@/core/design/spec.ts';
import { entryDetail } from '@/server/queries/entry.ts';
import { kindSteps } from './random-edits.ts';
import { DESIGN } from './random-site.ts';
import { setting } from './release.ts';

const entry = fc.constantFrom('v0', 'v1', 'v2', 'g0', 'g1', 'p0', 'p1', 's0', 's1', 't0');
const minutes = fc.integer({ min: 0, max: 200_000 });
const step = fc.oneof(
  fc.record({
    do: fc.constant('save' as const),
    entry,
    title: fc.constantFrom('Pea', 'Bean', 'Moved', '★'),
  }),
  fc.record({
    do: fc.constantFrom('publish' as const, 'retire' as const),
    entry,
    after: fc.option(minutes),
  }),
  fc.record({ do: fc.constant('cancel' as const) }),
  fc.record({
    do: fc.constant('refer' as const),
    entry: fc.constantFrom('v0', 'v1', 'v2'),
    target: fc.constantFrom('g0', 'g1', 'p0'),
    leads: fc.boolean(),
  }),
  fc.record({ do: fc.constantFrom('delete' as const, 'save again' as const), entry }),
  fc.record({ do: fc.constantFrom('restore' as const, 'desk' as const), entry }),
  fc.record({ do: fc.constant('place' as const), entry: fc.constantFrom('t0', 't0', 'v0') }),
  fc.record({
    do: fc.constant('many' as const),
    entries: fc.uniqueArray(entry, { minLength: 1, maxLength: 4 }),
    what: fc.constantFrom(
      { do: 'publish', at: null },
      { do: 'retire', at: null },
      { do: 'setValue', field: 'title', value: 'Many' },
      { do: 'addSubject', field: 'traits', key: 'tall' },
      { do: 'takeSubject', field: 'traits', key: 'tall' },
      { do: 'give', author: 'command-line' },
      { do: 'remove' },
    ),
    undo: fc.boolean(),
  }),
  fc.record({ do: fc.constant('fields' as const), without: fc.constantFrom('shade', 'none') }),
  fc.record({
    do: fc.constant('address' as const),
    pattern: fc.constantFrom(
      '/{title}',
      '/{grower.title ?? "seeds"}/{title}',
      '/x/{stock ?? 0}/{title}',
      '/{family.slug ?? "none"}/{title}',
      '/{family.parent.slug ?? "top"}/{traits.slug ?? "plain"}/{title}',
    ),
  }),
);

/** What changes who stands in picks, where, and when. */
const picking = fc.oneof(
  fc.record({
    do: fc.constant('pick' as const),
    entry: fc.constantFrom('g0', 'g1', 'p0', 'p1', 's0', 'v0'),
    after: fc.option(minutes),
    until: fc.option(minutes),
    which: fc.nat(),
  }),
  fc.record({
    do: fc.constantFrom('unpick' as const, 'pick until' as const, 'move pick' as const),
    until: fc.option(minutes),
    which: fc.nat(),
    other: fc.nat(),
  }),
);

/** What puts edits on the bench, takes them off it, and releases them, at once or later. */
const bench = fc.oneof(
  fc.record({
    do: fc.constant('edit' as const),
    part: fc.constantFrom(
      'types/variety',
      'types/page',
      'types/event',
      'types/story',
      'types/variety/fields/ease/options/hard',
      'types/story/fields/parts/fields/on',
      'listings/all',
      'listings/stories',
      'picks/on-the-shelf',
    ),
    set: fc.constantFrom(
      { address: '/{title}' },
      { address: '/s/{title}' },
      { address: '/{grower.title ?? "seeds"}/{title}' },
      { clash: 'refuse' },
      { presets: { author: true, date: 'updated', picks: ['shelf'] } },
      { description: 'Other.' },
      { label: 'Other' },
      { address: '/bean' },
      { timing: [{ do: 'retire', from: 'entry.published', after: 'P9D' }] },
      { timing: [{ do: 'publish', from: 'entry.created', after: 'P200D' }] },
      { sort: ['-stock'] },
    ),
  }),
  fc.record({
    do: fc.constant('rename' as const),
    field: fc.constantFrom(
      ['variety', 'stock'],
      ['variety', 'grower'],
      ['grower', 'title'],
      ['story', 'parts', 'who'],
    ),
  }),
  fc.record({
    do: fc.constant('release' as const),
    count: fc.integer({ min: 1, max: 3 }),
    draft: fc.option(entry),
    after: fc.option(minutes),
  }),
  fc.record({ do: fc.constantFrom('undo' as const, 'redo' as const, 'discard' as const) }),
  fc.record({ do: fc.constantFrom('rebase' as const, 'take back' as const) }),
  fc.record({
    do: fc.constantFrom('subject' as const, 'no subject' as const),
    name: fc.constantFrom('Slow', 'Pea', 'Bean', '2'),
    set: fc.constantFrom('traits', 'family'),
  }),
  fc.record({
    do: fc.constantFrom('slug' as const, 'merge' as const, 'move' as const, 'drop' as const),
    set: fc.constantFrom('traits', 'family'),
    which: fc.nat(),
    other: fc.nat(),
  }),
  fc.record({
    do: fc.constant('undo subjects' as const),
    set: fc.constantFrom('traits', 'family'),
  }),
  fc.record({
    do: fc.constant('kind' as const),
    field: fc.oneof(
      fc
        .constantFrom('title', 'stock', 'sow', 'shade', 'ease', 'grower')
        .map((f) => ['variety', f]),
      fc.constantFrom('name', 'who', 'marks', 'on').map((f) => ['story', 'parts', f]),
    ),
    kind: fc.constantFrom(...FIELD_KINDS.map(({ kind }) => kind), null, null),
    many: fc.boolean(),
  }),
);

const FIELDS = DESIGN['types/variety.json'] as { fields: { key: string }[] };

const anyWrite = fc.oneof(
  { weight: 2, arbitrary: step },
  { weight: 2, arbitrary: bench },
  { weight: 1, arbitrary: picking },
);

/** Something that somebody does to a random site, and the minutes that pass before it. */
export const randomWrites = fc.array(fc.tuple(anyWrite, minutes), {
  maxLength: 14,
});
type Write = (typeof randomWrites extends fc.Arbitrary<(infer W)[]> ? W : never)[0];

type SubjectWrite = Extract<Write, { set: string; which: number }>;
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

  /** Changes two subjects of a set, as they are by now. */
  private changeSubjects({ do: deed, set, which, other }: SubjectWrite): void {
    const keys = this.view.subjects(this.wall).all(set);
    if (keys.length === 0) return;
    const [one, two] = [keys[which % keys.length]!.key, keys[other % keys.length]!.key];
    const change = {
      slug: { do: 'set', key: one, slug: `s${other % 3}`, name: `Name ${other % 3}` },
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
        run('saveEntry', { id: what.entry, type, values: { title: what.title }, seen: null });
        break;
      }
      case 'save again': {
        const detail = entryDetail(view, COMMAND_LINE, what.entry, wall, wall);
        if (!detail) break;
        const { type, values } = detail;
        run('saveEntry', { id: what.entry, type: type.id, values, seen: null });
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
        run('keepFilter', { name: 'Mine', shared: false, filters: { type: 'variety' } });
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
      case 'delete':
        run('deleteEntry', { entry: what.entry });
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
