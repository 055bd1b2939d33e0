import { type Issue, type Result, ok, refused } from '../issue.ts';
import type { Design } from '../design/spec.ts';
import { type Json, type Part, ROOTS, SINGLES, isSingle, partAt, pathIn, rootOf } from './parts.ts';
import { put, same, valueAt, words } from './properties.ts';
import { renamed } from './rename.ts';
import { type Place, type Step, partOf } from './steps.ts';

/** A design after a step, and the step as it took hold: with the defaults it was filled up with. */
export interface Stepped {
  design: Design;
  step: Step;
}

/**
 * Does one step. Refused where what it replaces is not there any more, or what it makes is of the
 * wrong form; whether the design holds together is not looked at.
 */
export function applyStep(design: Design, step: Step): Result<Stepped> {
  switch (step.do) {
    case 'set':
      return set(design, step);
    case 'add':
      return add(design, step);
    case 'remove':
      return remove(design, step);
    case 'move':
      return move(design, step);
    case 'rename':
      return rename(design, step);
  }
}

/** Lists that are made where there is something to stand in them. */
const MAY_BE_MISSING = /^(options|fields|timing|slots\.[^.]+)$/;

type Of<D extends Step['do']> = Extract<Step, { do: D }>;

function set(design: Design, asked: Of<'set'>): Result<Stepped> {
  const current = partAt(design, asked.part);
  if (!current) return gone(asked.part);
  const step = withWhatHolds(current, asked);
  const value = valueAt(current, step.property);
  if (!same(value, step.was) && !same(value, step.now)) return refused(changed(step, value));
  const changedRoot = withRoot(design, step.part, (part) => put(part, step.property, step.now));
  if (!changedRoot.ok) return changedRoot;
  const part = partAt(changedRoot.value, step.part);
  if (!part) return refused(noPart(step));
  const now = valueAt(part, step.property);
  return ok({ design: changedRoot.value, step: { ...step, was: value, now } });
}

/**
 * Sets what is to hold a property together with it where that is not there: taken back, both go.
 */
function withWhatHolds(part: Part, step: Of<'set'>): Of<'set'> {
  const names = step.property.split('.');
  const missing = names.findIndex(
    (_, i) => valueAt(part, names.slice(0, i + 1).join('.')) === null,
  );
  if (step.now === null || missing < 0 || missing === names.length - 1) return step;
  const now = names
    .slice(missing + 1)
    .reduceRight<Json>((value, name) => Object.fromEntries([[name, value]]), step.now);
  return { ...step, property: names.slice(0, missing + 1).join('.'), now };
}

function add(design: Design, step: Of<'add'>): Result<Stepped> {
  const path = partOf(step);
  if (partAt(design, path))
    return refused({
      code: 'doubled-id',
      path,
      message: `There is a part "${step.part.id}" here already.`,
      fix: 'Give the new one another id.',
    });
  const owner = step.within === '' ? undefined : partAt(design, step.within);
  if (owner && MAY_BE_MISSING.test(step.list) && valueAt(owner, step.list) === null)
    return set(design, {
      do: 'set',
      part: step.within,
      property: step.list,
      was: null,
      now: [step.part],
    });
  const next = inList(design, step, (list) => {
    const at = placeAfter(list, step.after);
    list.splice(at, 0, structuredClone(step.part) as Part);
  });
  if (!next.ok) return next;
  const part = partAt(next.value, path);
  if (!part) return gone(step.within);
  return ok({ design: next.value, step: { ...step, part: part as Of<'add'>['part'] } });
}

function remove(design: Design, step: Of<'remove'>): Result<Stepped> {
  const current = partAt(design, step.part);
  const place = current && placeOf(design, step.part);
  if (!place) return gone(step.part);
  if (!same(current, step.was)) return refused(changed({ ...step, property: '' }, current));
  const next = inList(design, place, (list) => {
    list.splice(indexOf(list, step.was.id), 1);
  });
  return next.ok ? ok({ design: next.value, step: { ...step, ...place } }) : next;
}

function move(design: Design, step: Of<'move'>): Result<Stepped> {
  const current = partAt(design, step.part);
  const place = current && placeOf(design, step.part);
  if (!place) return gone(step.part);
  if (place.within !== step.from.within || place.list !== step.from.list)
    return refused({
      code: 'changed-since',
      path: step.part,
      message: 'This was moved somewhere else since you opened it.',
      fix: 'Look where it stands now, and move it from there.',
    });
  const taken = inList(design, place, (list) => {
    list.splice(indexOf(list, current.id!), 1);
  });
  if (!taken.ok) return taken;
  const next = inList(taken.value, step.to, (list) => {
    list.splice(placeAfter(list, step.to.after), 0, structuredClone(current));
  });
  if (!next.ok) return next;
  const to = placeOf(next.value, step.part);
  return to ? ok({ design: next.value, step: { ...step, from: place, to } }) : gone(step.to.within);
}

function rename(design: Design, step: Of<'rename'>): Result<Stepped> {
  const current = partAt(design, step.part);
  if (!current) return gone(step.part);
  const { key } = current;
  if (key !== undefined && key !== step.was && key !== step.now)
    return refused(changed({ ...step, property: 'key' }, key));
  const next = renamed(design, step.part, step.now);
  return next.ok ? ok({ design: next.value, step: { ...step, was: key ?? step.was } }) : next;
}

/** The design with something done to a copy of the part at the top, which is read again. */
function withRoot(design: Design, path: string, act: (part: Part) => void): Result<Design> {
  const root = rootOf(path);
  const copy = structuredClone(partAt(design, root)!);
  const inner = path === root ? copy : partWithin(copy, root, path);
  if (!inner) return gone(path);
  act(inner);
  return withPart(design, root, copy);
}

/** A part found in a copy of the one at the top. */
function partWithin(copy: Part, root: string, path: string): Part | undefined {
  const [list] = root.split('/');
  const alone = { [list!]: [copy] } as unknown as Design;
  return partAt(alone, path);
}

function withPart(design: Design, root: string, part: Part): Result<Design> {
  const [list] = root.split('/');
  const spec = isSingle(list!) ? SINGLES[list].spec : ROOTS[list!]!.spec;
  const parsed = spec.safeParse(part);
  if (!parsed.success)
    return {
      ok: false,
      issues: parsed.error.issues.map((i): Issue => ({
        code: 'wrong-form',
        path: [placeInWords(design, root), ...i.path.map(placeInList)].join('/'),
        message: i.message,
      })),
    };
  if (list === 'site') return ok({ ...design, site: parsed.data as Design['site'] });
  if (list === 'style') {
    const { look: _, ...rest } = design;
    return ok({ ...rest, ...(parsed.data as Pick<Design, 'css' | 'look'>) });
  }
  const all = design[list as 'types'] as unknown as Part[];
  const next = all.map((p) => (p.id === part.id ? (parsed.data as Part) : p));
  return ok({ ...design, [list!]: next });
}

/** Places in lists count from 1, as checks count them. */
function placeInList(step: PropertyKey): string {
  return typeof step === 'number' ? String(step + 1) : String(step);
}

/** A part at the top by its key, as checks name places. */
function placeInWords(design: Design, root: string): string {
  const part = partAt(design, root);
  return part?.key === undefined ? root : `${root.split('/')[0]}/${part.key}`;
}

/** The design with something done to one of its lists; what is new in it is read. */
function inList(
  design: Design,
  { within, list }: Place,
  act: (list: Part[]) => void,
): Result<Design> {
  if (within !== '') {
    if (!partAt(design, within) || isSingle(within.split('/')[0]!)) return gone(within);
    let found = true;
    const next = withRoot(design, within, (part) => {
      const parts = valueAt(part, list);
      if (Array.isArray(parts)) act(parts as Part[]);
      else found = false;
    });
    return found ? next : gone(`${within}/${list}`);
  }
  if (!Object.hasOwn(ROOTS, list)) return gone(list);
  const parts = [...(design[list as 'types'] as unknown as Part[])];
  act(parts);
  const known = new Set<unknown>(design[list as 'types']);
  const fresh = parts.filter((part) => !known.has(part));
  const next = { ...design, [list]: parts };
  return fresh.length === 0 ? ok(next) : withPart(next, `${list}/${fresh[0]!.id}`, fresh[0]!);
}

/** Where a part stands; undefined for what stands in no list. */
export function placeOf(design: Design, path: string): Place | undefined {
  const part = partAt(design, path);
  const root = rootOf(path);
  if (!part || isSingle(root)) return undefined;
  if (path === root) {
    const [list] = root.split('/');
    return { within: '', list: list!, after: before(design[list as 'types'] as never, part) };
  }
  return placeWithin(partAt(design, root)!, root, '', part);
}

function placeWithin(value: Json, within: string, list: string, part: Part): Place | undefined {
  if (typeof value !== 'object' || value === null) return undefined;
  if (Array.isArray(value) && value.includes(part))
    return { within, list, after: before(value as Part[], part) };
  for (const [name, inner] of Object.entries(value)) {
    const next = list === '' ? name : `${list}.${name}`;
    const { id } = (inner ?? {}) as Part;
    const place =
      typeof id === 'string'
        ? placeWithin(inner as Part, pathIn(within, list, id), '', part)
        : placeWithin(inner as Json, within, next, part);
    if (place) return place;
  }
  return undefined;
}

function before(list: readonly Part[], part: Part): string | null {
  return list[list.indexOf(part) - 1]?.id ?? null;
}

function indexOf(list: readonly Part[], id: string): number {
  return list.findIndex((part) => part.id === id);
}

/** Where to put something after another; at the end where that is not there any more. */
function placeAfter(list: readonly Part[], after: string | null): number {
  if (after === null) return 0;
  const at = indexOf(list, after);
  return at < 0 ? list.length : at + 1;
}

function gone(path: string): { ok: false; issues: Issue[] } {
  return refused({
    code: 'unknown-part',
    path,
    message: 'What this changes is not in the design any more.',
    fix: 'Reload the page.',
  });
}

/** That a part would not be one any more, so that nothing could be said of it, nor taken back. */
function noPart({ part, property }: Of<'set'>): Issue {
  return {
    code: 'wrong-value',
    path: `${part}/${property.replaceAll('.', '/')}`,
    message: 'Set so, it would be nothing that is known.',
    fix: 'Take it away, or set something else.',
  };
}

function changed(step: { part: string; property: string; now?: unknown }, current: unknown): Issue {
  return {
    code: 'changed-since',
    path: step.property === '' ? step.part : `${step.part}/${step.property.replaceAll('.', '/')}`,
    message: 'This was changed by somebody else since you opened it.',
    fix: 'Keep yours on top of what is there now, or drop yours.',
    values: { yours: words(step.now), theirs: words(current) },
  };
}
