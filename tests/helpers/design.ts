import { type Design, type ContentType, designSpec } from '@/core/design/spec.ts';
import type { EntryView, Values } from '@/core/design/values.ts';

/** A design out of the parts that matter to a test. */
export function designOf(parts: Record<string, unknown> & { site?: object }): Design {
  const site = {
    name: 'Seeds',
    url: 'https://seeds.example',
    zone: 'Europe/Dublin',
    language: 'en',
    ...parts.site,
  };
  return designSpec.parse({ types: [], ...parts, site });
}

/** A type with a title and whatever else is named. */
export function typeOf(key: string, fields: object[] = [], more: object = {}): object {
  return { key, fields: [{ key: 'title', kind: 'text' }, ...fields], ...more };
}

/** An entry, live since the year 2026 began, as templates and patterns see it. */
export function viewOf(
  type: ContentType,
  id: string,
  values: Values,
  more: Partial<EntryView> = {},
): EntryView {
  const since = Date.parse('2026-01-01T00:00:00Z');
  return {
    id,
    type,
    values,
    created: since,
    published: since,
    updated: since,
    author: 'Ann',
    state: 'live',
    path: null,
    ...more,
  };
}
