import type { Design } from '../design/spec.ts';
import { placeOf } from './apply.ts';
import { type Part, type PartPath, partAt, sortWord } from './parts.ts';
import type { Step } from './steps.ts';

/** What goes with a type: steps that take it away, and what each takes, in words. */
export interface Removal {
  steps: Step[];
  /** "listing Home", "template Boat page"; the type itself is not among them. */
  goes: string[];
}

/** The step that takes a part away. */
export function removalOf(design: Design, part: PartPath): Step {
  const was = partAt(design, part) as Part & { id: string };
  return { do: 'remove', part, was, ...placeOf(design, part)! };
}

/** Takes a type away together with the listings and templates that are of it alone. */
export function removalOfType(design: Design, id: string): Removal {
  const { key } = design.types.find((t) => t.id === id)!;
  const along = [
    ...design.listings.filter((l) => l.type === key).map((l) => `listings/${l.id}`),
    ...design.templates.filter((t) => t.type === key).map((t) => `templates/${t.id}`),
  ];
  const steps = [...along, `types/${id}`].map((part) => removalOf(design, part));
  return {
    steps,
    goes: along.map((path) => `${sortWord(path)} ${partAt(design, path)!.label ?? path}`),
  };
}
