import { type Issue, type Result, ok } from '../issue.ts';
import { type Design, designSpec } from '../design/spec.ts';
import { compileSite } from '../site/compile.ts';
import { versionOf, withChanges } from './changes.ts';

/** The parts of a design that are edited by themselves. */
export const EDITED_PARTS = ['types', 'listings', 'templates'] as const;
/** The name of a list of parts in a design. */
export type EditedPart = (typeof EDITED_PARTS)[number];

/** An edit of one type, listing or template: what is set, and which version of it was opened. */
export interface DesignEdit {
  part: EditedPart;
  key: string;
  /** Properties with their new values; null takes one away. */
  set: Record<string, unknown>;
  /** `versionOf` the part as it was opened. */
  version: string;
}

type Part = Record<string, unknown> & { key: string };

/** What an edit that takes this one back sets. */
export function inverseOf(design: Design, { part, key, set }: DesignEdit): Record<string, unknown> {
  const before = partOf(design, part, key) ?? {};
  return Object.fromEntries(
    Object.keys(set).map((name) => [name, (before as Record<string, unknown>)[name] ?? null]),
  );
}

function partOf(design: Design, part: EditedPart, key: string): Part | undefined {
  return (design[part] as Part[]).find((p) => p.key === key);
}

/**
 * A design with an edit applied; every problem is named. Refused where the part was changed since
 * it was opened: both values are told.
 */
export function applyEdit(design: Design, edit: DesignEdit): Result<Design> {
  const { part, key, set, version } = edit;
  const current = partOf(design, part, key);
  if (!current)
    return {
      ok: false,
      issues: [
        {
          code: 'unknown-part',
          message: `There is no "${key}" in the design any more.`,
          fix: 'Reload the page.',
        },
      ],
    };
  if (versionOf(current) !== version) return { ok: false, issues: conflicts(current, set, edit) };
  return put(design, part, key, withChanges(current, set));
}

function put(design: Design, part: EditedPart, key: string, next: Part): Result<Design> {
  const list = design[part] as Part[];
  const parsed = designSpec.safeParse({
    ...design,
    [part]: list.map((p) => (p.key === key ? next : p)),
  });
  if (!parsed.success) {
    const issues = parsed.error.issues.map((i): Issue => ({
      code: 'wrong-form',
      path: `${part}/${key}/${i.path.slice(2).join('/')}`,
      message: i.message,
    }));
    return { ok: false, issues };
  }
  const issues = [...changedKinds(design, parsed.data), ...compileSite(parsed.data).issues];
  return issues.length > 0 ? { ok: false, issues } : ok(parsed.data);
}

/**
 * Fields that are to hold something else under the id they have: their values would be of the old
 * kind.
 */
function changedKinds(before: Design, after: Design): Issue[] {
  const known = new Map(
    before.types.flatMap((t) => t.fields.map((f) => [`${t.id}/${f.id}`, f] as const)),
  );
  return after.types.flatMap((type) =>
    type.fields.flatMap((field) => {
      const was = known.get(`${type.id}/${field.id}`);
      if (!was || (was.kind === field.kind && was.many === field.many)) return [];
      return [
        {
          code: 'kind-changed',
          path: `types/${type.key}/fields/${field.key}`,
          message: `${field.label} holds ${was.many ? 'several of ' : ''}${was.kind}, and a field keeps its kind.`,
          fix: 'Add a field of the other kind, with an id of its own.',
        },
      ];
    }),
  );
}

function conflicts(
  current: Part,
  set: Record<string, unknown>,
  { part, key }: DesignEdit,
): Issue[] {
  return Object.entries(set).map(([name, mine]) => ({
    code: 'changed-since',
    path: `${part}/${key}/${name}`,
    message: `This was changed by somebody else since you opened it. ${name}: yours is ${words(mine)}; released is ${words(current[name])}.`,
    fix: 'Keep yours on top of what is released now, or drop yours.',
  }));
}

function words(value: unknown): string {
  if (value === null || value === undefined) return 'nothing';
  const text = typeof value === 'string' ? `“${value}”` : JSON.stringify(value);
  return text.length > 300 ? `${text.slice(0, 300)}…` : text;
}
