import type { Design } from '../design/spec.ts';
import { labelOf, propertyWords } from './describe.ts';
import type { Mention } from './mentions.ts';
import { mentionsIn } from './mentions.ts';
import { type PartPath, partAt, rootOf, sortWord } from './parts.ts';
import { names } from './rename.ts';

/** What reads a part of a design: how many of each, and each in words. */
export interface Readers {
  patterns: number;
  listings: number;
  templates: number;
  /** "listing Home: order", "Variety: address"; its own place is not among them. */
  lines: string[];
}

/** Everything else that names a field, a type or another part of a design. */
export function readersOf(design: Design, path: PartPath): Readers {
  const key = partAt(design, path)?.key;
  const found =
    key === undefined
      ? []
      : mentionsIn(design).filter((m) => m.part !== path && names(m, path, key));
  const roots = (sort: string): Set<string> =>
    new Set(found.map(({ part }) => rootOf(part)).filter((root) => root.startsWith(`${sort}/`)));
  return {
    patterns: found.filter(({ holds }) => holds === 'pattern' || holds === 'expression').length,
    listings: roots('listings').size,
    templates: roots('templates').size,
    lines: [...new Set(found.map((mention) => placeWords(design, mention)))],
  };
}

function placeWords(design: Design, { part, property }: Mention): string {
  const root = rootOf(part);
  const label = labelOf(partAt(design, root)) ?? root;
  const what = root.startsWith('types/') ? label : `${sortWord(root) ?? ''} ${label}`.trim();
  if (root === 'site') return `Site: ${propertyWords(property)}`;
  const inner = root === part ? null : labelOf(partAt(design, part));
  return inner ? `${what}, ${inner}` : `${what}: ${propertyWords(property)}`;
}
