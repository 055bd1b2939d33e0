import { fieldSpec, RESERVED_KEYS } from '@/core/design/spec.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import type { KeySeen } from '@/core/intake/look.ts';
import { fieldKeyOf, freeKey } from '@/core/outline/names.ts';
import type { Becomes } from './mapping-table.tsx';

/** Steps that make the fields which are still to be made, and what keys become with them. */
export function withNewFields(
  type: ContentType,
  keys: readonly KeySeen[],
  becomes: Becomes,
  language: string,
): { steps: Step[]; becomes: Becomes } {
  const taken = new Set([...type.fields.flatMap((f) => [f.key, f.id]), ...RESERVED_KEYS]);
  const all: Record<string, string> = { ...becomes };
  let after = type.fields.at(-1)?.id ?? null;
  const steps = keys.flatMap(({ name, kind }): Step[] => {
    if (becomes[name] !== 'new') return [];
    const key = freeKey(fieldKeyOf(name, language), taken);
    taken.add(key);
    all[name] = key;
    // Tags need a set; as text they can become tags later.
    const given = kind === 'tags' ? { kind: 'text', many: true } : { kind };
    const label = name.charAt(0).toUpperCase() + name.slice(1);
    const part = fieldSpec.parse({ key, label, ...given }) as unknown as Step & { id: string };
    const within = `types/${type.id}`;
    const step = { do: 'add', within, list: 'fields', after, part } as unknown as Step;
    after = key;
    return [step];
  });
  return { steps, becomes: all };
}

/** What keys become that can be tried now: fields that are still to be made come with loading. */
export function withoutNew(becomes: Becomes): Becomes {
  return Object.fromEntries(Object.entries(becomes).filter(([, to]) => to !== 'new'));
}
