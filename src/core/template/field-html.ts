import { isReference, targetOf } from '../design/field-values.ts';
import type { Field } from '../design/field.ts';
import { shownLink } from '../design/link-value.ts';
import { nameOf, valuesOf } from '../design/values.ts';
import { isSafeLink } from '../link.ts';
import { escapeHtml } from '../text.ts';
import type { Render, RenderScope } from './context.ts';

/** How the values of a field are drawn as links; null where they lead nowhere. */
export function linksOf(field: Field): Render | null {
  const html = isReference(field) ? entryHtml : targetOf(field)?.of === 'link' ? linkHtml : null;
  if (!html) return null;
  return (scope) =>
    valuesOf(scope.own?.values ?? {}, field.id)
      .flatMap((value) => html(value, scope) ?? [])
      .join(', ');
}

/** An entry by name; null where it is not live. */
function entryHtml(id: unknown, scope: RenderScope): string | null {
  const entry = scope.entry(String(id));
  if (!entry) return null;
  const [name, path] = [nameOf(entry), scope.pathOf(entry)];
  return path === null ? escapeHtml(name) : anchor(name, path);
}

function linkHtml(value: unknown, scope: RenderScope): string | null {
  const link = shownLink(value, scope);
  if (!link) return null;
  return isSafeLink(link.href) ? anchor(link.words, link.href) : escapeHtml(link.words);
}

function anchor(words: string, href: string): string {
  return `<a href="${escapeHtml(href)}">${escapeHtml(words)}</a>`;
}
