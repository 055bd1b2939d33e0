import type { ContentType } from '../design/spec.ts';
import type { FilterFamily } from '../design/kinds/definition.ts';
import { type Column, columnsOf } from '../listing/columns.ts';

/**
 * What the content table knows of every entry besides its fields, by name; no field's id begins
 * with "@".
 */
const OWN: readonly { name: string; label: string; family: FilterFamily; sortable: boolean }[] = [
  { name: '@name', label: 'name', family: 'text', sortable: true },
  { name: '@type', label: 'type', family: 'members', sortable: false },
  { name: '@author', label: 'author', family: 'members', sortable: false },
  { name: '@created', label: 'made', family: 'instant', sortable: true },
  { name: '@saved', label: 'last saved', family: 'instant', sortable: true },
  { name: '@published', label: 'first public', family: 'instant', sortable: true },
];

/** Something that entries of any type are asked for as of an instant, by name, as yes or no. */
export const CONTENT_FACTS = [
  { name: '@changed', label: 'has unpublished changes' },
  { name: '@broken', label: 'refers to something not live' },
] as const;

/**
 * The columns that the content table filters and orders by, by name: a field's is its id, so that
 * renaming it changes nothing, and a choice's options go by their ids.
 */
export function contentColumns(type: ContentType | null): Map<string, Column> {
  const columns = new Map<string, Column>();
  for (const own of OWN) columns.set(own.name, plain(own));
  for (const fact of CONTENT_FACTS)
    columns.set(fact.name, plain({ ...fact, family: 'yesno', sortable: false }));
  for (const column of type ? columnsOf(type).values() : [])
    if (column.field) columns.set(column.field.id, byIds(column));
  return columns;
}

function plain(own: Pick<Column, 'name' | 'label' | 'family' | 'sortable'>): Column {
  return { ...own, field: null, target: null, meta: null };
}

function byIds(column: Column): Column {
  const field = column.field!;
  const options = field.options?.map((option) => ({ ...option, key: option.id }));
  return { ...column, name: field.id, field: options ? { ...field, options } : field };
}
