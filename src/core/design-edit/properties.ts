import type { Json, Part } from './parts.ts';

/** A property by its path; null where there is none. */
export function valueAt(part: Part, property: string): Json {
  let value: Json | undefined = part;
  for (const name of property.split('.')) {
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, name)) return null;
    value = (value as Record<string, Json>)[name];
  }
  return value ?? null;
}

/** Sets a property, or takes it away where it is to be null. */
export function put(part: Part, property: string, value: Json): void {
  const names = property.split('.');
  const last = names.pop()!;
  let owner = part as Record<string, Json>;
  for (const name of names) {
    const next = Object.hasOwn(owner, name) ? owner[name] : null;
    if (typeof next !== 'object' || next === null) {
      if (value === null) return;
      define(owner, name, {});
    }
    owner = owner[name] as Record<string, Json>;
  }
  if (value === null) delete owner[last];
  else define(owner, last, structuredClone(value));
}

/** As an own property, whatever its name. */
function define(owner: object, name: string, value: Json): void {
  Object.defineProperty(owner, name, {
    value,
    writable: true,
    enumerable: true,
    configurable: true,
  });
}

/** Whether two values read the same. */
export function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(a ?? null) === JSON.stringify(b ?? null);
}

/** A value in words, as far as fits. */
export function words(value: unknown): string {
  if (value === null || value === undefined) return 'nothing';
  const text = typeof value === 'string' ? `“${value}”` : JSON.stringify(value);
  return text.length > 300 ? `${text.slice(0, 300)}…` : text;
}
