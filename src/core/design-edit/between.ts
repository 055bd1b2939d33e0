import type { Design } from '../design/spec.ts';
import { applyStep, placeOf } from './apply.ts';
import {
  type Json,
  type Part,
  type PartPath,
  ROOTS,
  SINGLES,
  isSingle,
  partAt,
  partsBelow,
  rootOf,
} from './parts.ts';
import { same, valueAt } from './properties.ts';
import type { Place, Step } from './steps.ts';

/** Properties that hold further properties, each changed by itself. */
const RECORDS = ['seo', 'slots', 'presets'];

/**
 * The steps that lead from a part at the top as it was opened to what it is to be; parts without
 * an id are new, and get one by `newId`.
 */
export function stepsBetween(
  path: PartPath,
  opened: object,
  now: object,
  newId: () => string,
): Step[] {
  const walk = new Walk(path, opened as Part, wantedPart(path, now as Part, newId));
  return walk.steps();
}

/** What is wanted, with ids, and written as it will be stored where its form is right. */
function wantedPart(path: PartPath, now: Part, newId: () => string): Part {
  const wanted = structuredClone(now);
  for (const [, part] of partsBelow(path, wanted)) part.id ??= newId();
  const [list] = path.split('/');
  const spec = isSingle(list!) ? SINGLES[list].spec : ROOTS[list!]!.spec;
  const parsed = spec.safeParse(wanted);
  return parsed.success ? (parsed.data as Part) : wanted;
}

class Walk {
  private readonly done: Step[] = [];
  private state: Design;
  private readonly target: Design;

  constructor(
    private readonly path: PartPath,
    opened: Part,
    private readonly wanted: Part,
  ) {
    this.state = alone(path, opened);
    this.target = alone(path, wanted);
  }

  steps(): Step[] {
    // A filter at the top stands in no list: another one takes its place as a whole.
    this.setProperty(this.path, 'where', this.wanted);
    const all = isSingle(this.path) ? [] : partsBelow(this.path, this.wanted).slice(1);
    const staying = this.staying(all.map(([path]) => path));
    for (const [path, part] of all) this.put(path, part, staying.has(path));
    this.removeRest(new Set(all.map(([path]) => path)));
    for (const [path, part] of [[this.path, this.wanted] as const, ...all])
      this.setProperties(path, part);
    return this.done;
  }

  private act(step: Step): void {
    const result = applyStep(this.state, step);
    // What has the wrong form is sent all the same: whoever applies it says what is wrong.
    if (result.ok) this.state = result.value.design;
    this.done.push(result.ok ? result.value.step : step);
  }

  /** The parts that stand in the list they stood in, in the order they had. */
  private staying(paths: readonly PartPath[]): Set<PartPath> {
    const lists = new Map<string, { path: PartPath; was: number }[]>();
    const order = new Map(
      partsBelow(this.path, partAt(this.state, this.path)!).map(([path], i) => [path, i]),
    );
    for (const path of paths) {
      const [was, now] = [placeOf(this.state, path), placeOf(this.target, path)];
      if (!now || was?.within !== now.within || was.list !== now.list) continue;
      const list = `${now.within}\n${now.list}`;
      lists.set(list, [...(lists.get(list) ?? []), { path, was: order.get(path)! }]);
    }
    return new Set([...lists.values()].flatMap((list) => longestRising(list).map((p) => p.path)));
  }

  private put(path: PartPath, part: Part, stays: boolean): void {
    const place = placeOf(this.target, path);
    if (stays || !place) return;
    const from = placeOf(this.state, path);
    if (from) return this.act({ do: 'move', part: path, from, to: place });
    this.act({ do: 'add', part: this.withoutKept(path, part), ...place });
  }

  /** A new part without what is moved into it afterwards. */
  private withoutKept(path: PartPath, part: Part): Extract<Step, { do: 'add' }>['part'] {
    const kept = new Set(
      partsBelow(this.path, partAt(this.state, this.path)!).map(([, { id }]) => id),
    );
    const strip = (value: Json): Json => {
      if (Array.isArray(value))
        return value.filter((v) => !kept.has((v as Part | null)?.id)).map(strip);
      if (typeof value !== 'object' || value === null) return value;
      return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, strip(v)]));
    };
    return strip(path === this.path ? {} : part) as Extract<Step, { do: 'add' }>['part'];
  }

  private removeRest(wanted: ReadonlySet<PartPath>): void {
    for (;;) {
      const root = partAt(this.state, this.path)!;
      const isIn = placed(this.state);
      const found = isSingle(this.path)
        ? undefined
        : partsBelow(this.path, root).find(([path], i) => i > 0 && !wanted.has(path) && isIn(path));
      if (!found) return;
      const [path, was] = found;
      const place: Place = placeOf(this.state, path)!;
      const count = this.done.length;
      this.act({ do: 'remove', part: path, was: was as never, ...place });
      if (this.done.length === count || partAt(this.state, path)) return;
    }
  }

  private setProperties(path: PartPath, part: Part): void {
    const current = partAt(this.state, path);
    if (!current) return;
    const names = new Set([...Object.keys(current), ...Object.keys(part)]);
    for (const name of names) {
      if (name === 'id' || name === 'key') continue;
      const all = [current[name], part[name]];
      const inner = RECORDS.includes(name)
        ? all.flatMap((v) => Object.keys(v ?? {}))
        : name === 'texts'
          ? all.flatMap(leavesOf)
          : null;
      const properties = inner ? [...new Set(inner)].map((i) => `${name}.${i}`) : [name];
      for (const property of properties) this.setProperty(path, property, part);
    }
  }

  private setProperty(part: PartPath, property: string, wanted: Part): void {
    const was = valueAt(partAt(this.state, part)!, property);
    const now = valueAt(wanted, property);
    if (same(skeleton(was), skeleton(now))) return;
    this.act({ do: 'set', part, property, was, now });
  }
}

/** The paths of all that stands in records within each other. */
function leavesOf(value: Json | undefined): string[] {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return [];
  return Object.entries(value).flatMap(([name, inner]) => {
    const leaves = leavesOf(inner);
    return leaves.length > 0 ? leaves.map((leaf) => `${name}.${leaf}`) : [name];
  });
}

/** A design of one part, to try steps on. */
export function alone(path: PartPath, part: Part): Design {
  const lists = Object.fromEntries(Object.keys(ROOTS).map((list) => [list, [] as Part[]]));
  if (path === 'site') return { ...lists, site: part } as unknown as Design;
  if (path === 'style') return { ...lists, ...part } as unknown as Design;
  return { ...lists, [rootOf(path).split('/')[0]!]: [part] } as unknown as Design;
}

const placed =
  (design: Design) =>
  (path: PartPath): boolean =>
    placeOf(design, path) !== undefined;

/** A value without the parts in it, which are changed by themselves. */
function skeleton(value: Json): Json {
  if (Array.isArray(value)) {
    if (value.length > 0 && value.every(isPart)) return [];
    return value.map(skeleton);
  }
  if (isPart(value)) return { id: (value as Part).id! };
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, skeleton(v)]));
}

function isPart(value: Json): boolean {
  return typeof value === 'object' && value !== null && typeof (value as Part).id === 'string';
}

/** The longest run of items whose former places rise. */
function longestRising<T extends { was: number }>(items: readonly T[]): T[] {
  const runs: T[][] = [];
  for (const item of items) {
    const before = runs.filter((run) => run.at(-1)!.was < item.was);
    const longest = before.reduce<T[]>((a, b) => (b.length > a.length ? b : a), []);
    runs.push([...longest, item]);
  }
  return runs.reduce<T[]>((a, b) => (b.length > a.length ? b : a), []);
}
