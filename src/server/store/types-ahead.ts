import type { Field } from '@/core/design/field.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { CompiledSite } from '@/core/site/compile.ts';

/** The types of several designs, each with the fields it has in any of them. */
export function typesOf(sites: CompiledSite[]): ContentType[] {
  const found = new Map<string, ContentType>();
  for (const { types } of sites)
    for (const [id, type] of types) {
      const known = found.get(id);
      const ids = new Set(known?.fields.map((f) => f.id));
      const more = type.fields.filter((f) => !ids.has(f.id));
      found.set(id, known ? withFields(known, more) : type);
    }
  return [...found.values()];
}

/** A type with more fields; their keys may be in use by others now. */
export function withFields(type: ContentType, more: readonly Field[]): ContentType {
  const renamed = more.map((f) => ({ ...f, key: `#${f.id}` }));
  return more.length === 0 ? type : { ...type, fields: [...type.fields, ...renamed] };
}
