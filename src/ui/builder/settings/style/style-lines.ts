import { type Look, lookSpec } from '@/core/style/look-spec.ts';
import type { StyleDetail } from '@/server/queries/style.ts';

/** The style as it is edited. */
export type StyleSpec = StyleDetail['spec'];

/** What every part of the Style screen's settings is given. */
export interface StyleLines {
  spec: StyleSpec;
  readOnly: boolean;
  onChange: (spec: StyleSpec) => void;
}

/** The look that is edited: the first starting style where none is set. */
export const lookOf = ({ look }: StyleSpec): Look => look ?? lookSpec.parse({});

/** A style with a property of its look set, or as the starting style has it where undefined. */
export function withLook<K extends keyof Look>(
  spec: StyleSpec,
  name: K,
  value: Look[K] | undefined,
): StyleSpec {
  const { [name]: _, ...rest } = lookOf(spec);
  return { ...spec, look: (value === undefined ? rest : { ...rest, [name]: value }) as Look };
}
