import type Database from 'better-sqlite3';
import { searchKey } from '@/core/text.ts';

/** What earlier designs have in common, as far as it is read here. */
interface EarlierField {
  id: string;
  kind?: string;
  fields?: EarlierField[];
}

type Found = { field: string; id: string };

/** Notes which revisions show which media, and what searches compare of these. */
export function noteMedia(driver: Database.Database): void {
  const search = driver.prepare('UPDATE media SET search = ? WHERE id = ?');
  const media = driver.prepare<unknown[], { id: string; alt: string }>('SELECT id, alt FROM media');
  for (const { id, alt } of media.all()) search.run(searchKey(`${id} ${alt}`), id);
  const kinds = new Map<string, string>();
  const specs = driver.prepare<unknown[], string>('SELECT spec FROM design_version').pluck();
  const note = ({ id, kind, fields }: EarlierField): void => {
    if (kind !== undefined) kinds.set(id, kind);
    fields?.forEach(note);
  };
  for (const spec of specs.all())
    for (const type of (JSON.parse(spec) as { types: { fields: EarlierField[] }[] }).types)
      type.fields.forEach(note);
  const add = driver.prepare('INSERT OR IGNORE INTO reference_edge VALUES (?, ?, ?, ?)');
  const rows = driver.prepare<unknown[], { entry: string; number: number; json: string }>(
    'SELECT entry, number, "values" AS json FROM revision',
  );
  for (const { entry, number, json } of rows.all())
    for (const { field, id } of mediaIn(JSON.parse(json), kinds))
      add.run(`/${id}`, field, entry, number);
}

/** The media among values by field id; those of a text are its field's, whatever shows them. */
function mediaIn(values: unknown, kinds: ReadonlyMap<string, string>, text?: string): Found[] {
  if (Array.isArray(values)) return values.flatMap((inner) => mediaIn(inner, kinds, text));
  if (typeof values !== 'object' || values === null) return [];
  const { type, attrs } = values as { type?: unknown; attrs?: { src?: unknown } };
  const shown = text !== undefined && type === 'image' ? attrs?.src : undefined;
  const own = typeof shown === 'string' ? [{ field: text!, id: shown }] : [];
  const inner = Object.entries(values).flatMap(([name, value]) => {
    if (kinds.get(name) === 'media')
      return [value]
        .flat()
        .flatMap((id) => (typeof id === 'string' ? [{ field: text ?? name, id }] : []));
    return mediaIn(value, kinds, text ?? (kinds.get(name) === 'richtext' ? name : undefined));
  });
  return [...own, ...inner];
}
