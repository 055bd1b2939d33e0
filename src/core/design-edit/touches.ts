import type { Design } from '../design/spec.ts';
import { otherSidesOf } from '../design/other-sides.ts';
import { namesIn } from '../pattern/names.ts';
import { type Mention, mentionsIn } from './mentions.ts';
import type { PartPath } from './parts.ts';
import { type Step, partOf } from './steps.ts';
import type { DesignEdit } from './edit.ts';

/** The parts an edit changes, and those it names. */
export interface Touches {
  writes: ReadonlySet<PartPath>;
  reads: ReadonlySet<PartPath>;
}

/** What an edit touches; `design` is the one it gave. */
export function touches(design: Design, edit: DesignEdit): Touches {
  const writes = new Set(edit.steps.map(partOf));
  const reads = new Set<PartPath>();
  for (const mention of mentionsIn(design))
    if (edit.steps.some((step) => speaksIn(step, mention)))
      for (const path of partsNamed(design, mention)) reads.add(path);
  for (const path of writes) for (const outer of outwards(path)) reads.add(outer);
  return { writes, reads };
}

/** Whether a mention stands in what a step wrote. */
function speaksIn(step: Step, { part, property }: Mention): boolean {
  const own = partOf(step);
  if (step.do === 'add') return part === own || part.startsWith(`${own}/`);
  return step.do === 'set' && part === own && `${property}.`.startsWith(`${step.property}.`);
}

/** The parts that a place in the design names. */
export function partsNamed(design: Design, mention: Mention): PartPath[] {
  const { holds, text, type } = mention;
  const byKey = (list: 'types' | 'listings' | 'templates' | 'subjectSets'): PartPath[] =>
    design[list].filter((p) => p.key === text).map((p) => `${list}/${p.id}`);
  switch (holds) {
    case 'type':
      return byKey('types');
    case 'listing':
      return byKey('listings');
    case 'template':
      return byKey('templates');
    case 'set':
      return byKey('subjectSets');
    case 'field':
      return fieldPaths(design, type?.id, text);
    case 'option':
      return fieldPaths(design, type?.id, mention.field ?? '');
    case 'pattern':
      return fieldsOfPattern(mention, text);
    case 'expression':
      return fieldsOfPattern(mention, `{${text}}`);
  }
}

function fieldPaths(design: Design, type: string | undefined, key: string): PartPath[] {
  const own = design.types.find((t) => t.id === type);
  const field = own?.fields.find((f) => f.key === key);
  if (field) return [`types/${type}/fields/${field.id}`];
  const other = own && otherSidesOf(own, design).find(({ name }) => name === key);
  return other ? [`types/${other.type.id}/fields/${other.field.id}`] : [];
}

function fieldsOfPattern({ environments }: Mention, source: string): PartPath[] {
  return environments.flatMap((env) =>
    namesIn(source, env).flatMap(({ member: { field, single, otherSide, owners = [] } }) => [
      ...(otherSide ? [`types/${otherSide.type}/fields/${otherSide.field}`] : []),
      ...(single === undefined ? [] : [`types/${single}`]),
      ...(field === undefined ? [] : owners.map((type) => `types/${type}/fields/${field}`)),
    ]),
  );
}

/** The parts that a part stands in, the nearest first. */
function outwards(path: PartPath): PartPath[] {
  const words = path.split('/');
  return words.length <= 2
    ? []
    : [words.slice(0, -2).join('/'), ...outwards(words.slice(0, -2).join('/'))];
}

/** Whether one edit may be built on what another one did. */
export function mayBuildOn(later: Touches, earlier: Touches): boolean {
  for (const path of earlier.writes)
    for (const other of [...later.writes, ...later.reads])
      if (other === path || other.startsWith(`${path}/`)) return true;
  return false;
}
