import type Database from 'better-sqlite3';

/** What earlier designs have in common, as far as it is read here. */
interface EarlierField {
  id: string;
  set?: string;
  fields?: EarlierField[];
}
interface EarlierDesign {
  types: { fields: EarlierField[] }[];
  subjectSets: { id: string; key: string }[];
}

/** Notes which revisions have which subjects, as what is written from now on does. */
export function noteSubjects(driver: Database.Database): void {
  const sets = new Map<string, string>();
  const specs = driver.prepare<unknown[], string>('SELECT spec FROM design_version').pluck();
  for (const spec of specs.all()) {
    const { types, subjectSets } = JSON.parse(spec) as EarlierDesign;
    const ids = new Map(subjectSets.map(({ id, key }) => [key, id]));
    const note = ({ id, set, fields }: EarlierField): void => {
      if (set !== undefined) sets.set(id, ids.get(set) ?? '');
      fields?.forEach(note);
    };
    for (const { fields } of types) fields.forEach(note);
  }
  const add = driver.prepare('INSERT OR IGNORE INTO reference_edge VALUES (?, ?, ?, ?)');
  const rows = driver.prepare<unknown[], { entry: string; number: number; json: string }>(
    'SELECT entry, number, "values" AS json FROM revision',
  );
  for (const { entry, number, json } of rows.all())
    for (const { field, key } of subjectsIn(JSON.parse(json), sets))
      add.run(`#${sets.get(field)}/${key}`, field, entry, number);
}

/** The subjects among values by field id, those in groups included. */
function subjectsIn(
  values: unknown,
  sets: ReadonlyMap<string, string>,
): { field: string; key: string }[] {
  if (typeof values !== 'object' || values === null) return [];
  return Object.entries(values).flatMap(([field, value]) =>
    sets.has(field)
      ? [value].flat().flatMap((key) => (typeof key === 'string' ? [{ field, key }] : []))
      : [value].flat().flatMap((inner) => subjectsIn(inner, sets)),
  );
}
