import { z } from 'zod';
import type { Field } from '../../design/field.ts';
import { rootOf } from '../../design/language-spec.ts';
import { isReference, targetOf } from '../../design/field-values.ts';
import { type EntryView, nameOf, valuesOf } from '../../design/values.ts';
import { escapeHtml } from '../../text.ts';
import type { RenderScope } from '../context.ts';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';
import { type SubjectLink, subjectLinks } from '../subject-links.ts';
import { wordsOf } from '../words.ts';

/** So many pages stand above one at most, and so many categories. */
const MOST = 50;

/** What stands above a page: where it leads, null for nowhere, and how it reads. */
type Crumb = [path: string | null, name: string];

const leadsUp = (field: Field): boolean =>
  !field.many && (isReference(field) || field.kind === 'category');

/** Where a page stands: what is above it by a reference or a category, and itself. */
export const breadcrumbs = defineBlock({
  block: 'breadcrumbs',
  label: 'Breadcrumbs',
  doc: 'Where a page stands: the pages above it by a reference, or its categories, and itself.',
  spec: {
    field: z.string(),
    /** Words of a first link that leads to "/"; none where left out. */
    home: z.string().optional().meta({ title: 'First link' }),
  },
  holds: { field: 'field' },
  compile: ({ field, home, style }, c) => {
    const bound = c.field(field, 'field', leadsUp, 'one reference, or a category');
    const isCategory = bound && targetOf(bound.field)?.of === 'subjects';
    const linkOf = isCategory ? subjectLinks(c.design, bound) : null;
    if (bound && !isCategory) c.reads(bound);
    const first: Crumb[] = home === undefined ? [] : [[rootOf(c.design), home]];
    return (scope) => {
      const own = bound?.owner(scope)?.own;
      if (!own || !bound) return '';
      const above = linkOf
        ? categoriesOf(own, bound.field, linkOf, scope)
        : pagesAbove(own, bound.field, scope);
      if (above.length === 0) return '';
      const links = [...first, ...above].map(([path, name]) => `<li>${linked(path, name)}</li>`);
      const self = `<li aria-current="page">${escapeHtml(nameOf(own))}</li>`;
      const label = escapeHtml(wordsOf(scope.language).here);
      return `<nav${classes('breadcrumbs', style)} aria-label="${label}"><ol>${links.join('')}${self}</ol></nav>`;
    };
  },
  example: {
    block: { block: 'breadcrumbs', field: 'friend', home: 'Seeds' },
    html: '<nav class="breadcrumbs" aria-label="You are here"><ol><li><a href="/">Seeds</a></li><li><a href="/seeds/red-bean">Red bean</a></li><li aria-current="page">Blue pea</li></ol></nav>',
  },
});

/** The live pages above one, the highest first: each by the field of that name of its own type. */
function pagesAbove(own: EntryView, { key }: Field, scope: RenderScope): Crumb[] {
  const above: Crumb[] = [];
  const seen = new Set([own.id]);
  for (let at: EntryView | null = own; at && above.length < MOST;) {
    const field: Field | undefined = at.type.fields.find((f) => f.key === key && leadsUp(f));
    const [id]: unknown[] = field ? valuesOf(at.values, field.id) : [];
    at = id === undefined || seen.has(String(id)) ? null : scope.entry(String(id));
    if (!at) break;
    seen.add(at.id);
    above.unshift([scope.pathOf(at), nameOf(at)]);
  }
  return above;
}

/** A category and those above it, the highest first; those that a listing stands for lead there. */
function categoriesOf(
  own: EntryView,
  field: Field,
  linkOf: SubjectLink,
  scope: RenderScope,
): Crumb[] {
  const above: Crumb[] = [];
  let [key] = valuesOf(own.values, field.id) as (string | null)[];
  while (key !== null && key !== undefined && above.length < MOST) {
    const subject = scope.subject(field.set ?? '', key);
    if (!subject) break;
    above.unshift([linkOf({ subject, key, own }, scope), subject.name]);
    key = subject.parent;
  }
  return above;
}

function linked(path: string | null, name: string): string {
  const words = escapeHtml(name);
  return path === null ? words : `<a href="${escapeHtml(path)}">${words}</a>`;
}
