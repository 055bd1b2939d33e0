import type { Field } from '../design/field.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { otherSidesOf } from '../design/other-sides.ts';
import { namesIn } from '../pattern/names.ts';
import { type Mention, mentionsIn } from './mentions.ts';
import { type PartPath, outerOf, partAt } from './parts.ts';
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
  const { holds, text, within } = mention;
  const byKey = (
    list: 'types' | 'listings' | 'templates' | 'subjectSets' | 'picks' | 'textForms' | 'styles',
  ): PartPath[] => design[list].filter((p) => p.key === text).map((p) => `${list}/${p.id}`);
  switch (holds) {
    case 'type':
      return byKey('types');
    case 'listing':
      return byKey('listings');
    case 'template':
      return byKey('templates');
    case 'set':
      return byKey('subjectSets');
    case 'picks':
      return byKey('picks');
    case 'form':
      return byKey('textForms');
    case 'style':
      return byKey('styles');
    case 'field':
      return within === undefined ? [] : fieldPaths(design, within, text);
    case 'option':
      return within === undefined ? [] : [within];
    case 'pattern':
      return fieldsOfPattern(mention, text);
    case 'expression':
      return fieldsOfPattern(mention, `{${text}}`);
  }
}

/** The field that a type, or a group, has by a key, or the one whose other side is called so. */
function fieldPaths(design: Design, within: PartPath, key: string): PartPath[] {
  const own = partAt(design, within) as unknown as ContentType | Field | undefined;
  const field = own?.fields?.find((f) => f.key === key);
  if (field) return [`${within}/fields/${field.id}`];
  const isType = outerOf(within) === '';
  const sides = own && isType ? otherSidesOf(own, design) : [];
  const other = sides.find(({ name }) => name === key);
  return other ? [`types/${other.type.id}/fields/${other.field.id}`] : [];
}

function fieldsOfPattern({ environments }: Mention, source: string): PartPath[] {
  return environments.flatMap((env) =>
    namesIn(source, env).flatMap(({ member: { parts = [], single, otherSide } }) => [
      ...(otherSide ? [`types/${otherSide.type}/fields/${otherSide.field}`] : []),
      ...(single === undefined ? [] : [`types/${single}`]),
      ...parts,
    ]),
  );
}

/** The parts that a part stands in, the nearest first. */
function outwards(path: PartPath): PartPath[] {
  const outer = outerOf(path);
  return outer === '' ? [] : [outer, ...outwards(outer)];
}

/** Whether one edit may be built on what another one did. */
export function mayBuildOn(later: Touches, earlier: Touches): boolean {
  for (const path of earlier.writes)
    for (const other of [...later.writes, ...later.reads])
      if (other === path || other.startsWith(`${path}/`)) return true;
  return false;
}
