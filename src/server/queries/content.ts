import type { SiteView } from './site-view.ts';
import { type Actor, permit } from '../commands/permit.ts';
import { stateAt } from '@/core/publication/state.ts';
import type { EntryState } from '@/core/publication/model.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { ContentType, Field } from '@/core/design/spec.ts';
import { type Values, valuesOf } from '@/core/design/values.ts';
import { plainText } from '@/core/rich-text.ts';
import { formatStyled } from '@/core/pattern/date-format.ts';

/** A stretch of an entry's life; planned where it starts ahead of now. */
export interface LifeSpan {
  from: Instant;
  to: Instant | null;
  revision: number;
}

/** A row of the content table. */
export interface ContentRow {
  id: string;
  type: string;
  typeLabel: string;
  name: string;
  state: EntryState;
  spans: LifeSpan[];
  path: string | null;
  /** Texts of the chosen columns, by field key. */
  cells: Record<string, string>;
  saved: Instant;
}

/** What the content table shows. */
export interface ContentTable {
  rows: ContentRow[];
  total: number;
  columns: { key: string; label: string; numeric: boolean }[];
  counts: { type: string; label: string; count: number }[];
}

type Row = { id: string; type: string; name: string; values: string; saved: number; revisions: string; spans: string | null; path: string | null };

const PAGE = 200;

/** All entries with their state as of an instant: the newest revision by then, the first one for those not yet written. */
export function contentTable(view: SiteView, actor: Actor, at: Instant, { type, search, state }: { type?: string; search?: string; state?: string }): ContentTable {
  permit(actor, 'read-unpublished');
  const site = view.at(at)?.site;
  if (!site) return { rows: [], total: 0, columns: [], counts: [] };
  const chosen = type === undefined ? undefined : site.types.get(type);
  const sql = `
    SELECT e.id, e.type, r.name, r."values", r.saved,
      (SELECT json_group_array(json_array(number, saved)) FROM revision WHERE entry = e.id) AS revisions,
      (SELECT json_group_array(json_array(starts, ends, revision)) FROM live_interval WHERE entry = e.id) AS spans,
      (SELECT path FROM address AS a WHERE a.entry = e.id AND a.role = 'current' AND a.starts <= @at AND (a.ends IS NULL OR a.ends > @at)) AS path
    FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = coalesce((SELECT max(number) FROM revision WHERE entry = e.id AND saved <= @at), 1)
    WHERE (@type IS NULL OR e.type = @type) AND (@search = '' OR instr(lower(r.name), lower(@search)) > 0)
    ORDER BY r.saved DESC, e.created DESC, e.id LIMIT 5000`;
  const found = view.connection.driver.prepare(sql).all({ at, type: type ?? null, search: search ?? '' }) as Row[];
  const columns = (chosen?.fields ?? []).filter((f) => f.column && f.key !== chosen!.naming);
  const rows = found.flatMap((row) => contentRow(view, row, site.types.get(row.type), columns, at) ?? []).filter((r) => state === undefined || r.state === state);
  const counts = view.connection.driver.prepare('SELECT type, count(*) AS count FROM entry GROUP BY type').all() as { type: string; count: number }[];
  return {
    rows: rows.slice(0, PAGE),
    total: rows.length,
    columns: columns.map((f) => ({ key: f.key, label: f.label, numeric: f.kind === 'number' })),
    counts: site.design.types.map((t) => ({ type: t.key, label: t.plural, count: counts.find((c) => c.type === t.key)?.count ?? 0 })),
  };
}

function contentRow(view: SiteView, row: Row, type: ContentType | undefined, columns: Field[], at: Instant): ContentRow | null {
  if (!type) return null;
  const spans = (JSON.parse(row.spans ?? '[]') as [number, number | null, number][]).map(([from, to, revision]) => ({ from, to, revision })).sort((a, b) => a.from - b.from);
  const revisions = (JSON.parse(row.revisions) as [number, number][]).map(([number, saved]) => ({ number, saved }));
  const { state } = stateAt({ revisions, intervals: spans }, at);
  const values = JSON.parse(row.values) as Values;
  const cells = Object.fromEntries(columns.map((f) => [f.key, shownValue(view, f, values, at)]));
  return { id: row.id, type: type.key, typeLabel: type.label, name: row.name, state, spans, path: row.path, cells, saved: row.saved };
}

/** A field's value as a table shows it. */
export function shownValue(view: SiteView, field: Field, values: Values, at: Instant): string {
  const { zone, language } = view.at(at)!.site.design.site;
  return valuesOf(values, field.id)
    .map((value) => {
      switch (field.kind) {
        case 'date':
        case 'datetime':
          return formatStyled(value as string | number, 'medium', language, zone);
        case 'category':
        case 'tags':
          return view.subjects.get(field.set ?? '', String(value))?.name ?? String(value);
        case 'choice':
          return field.options?.find((o) => o.key === value)?.label ?? String(value);
        case 'yesno':
          return value === true ? 'yes' : 'no';
        case 'reference':
          return entryName(view, String(value));
        case 'richtext':
          return plainText(value);
        default:
          return String(value);
      }
    })
    .join(', ');
}

/** The name of an entry's newest revision; its id where there is none. */
export function entryName(view: SiteView, id: string): string {
  return (view.connection.driver.prepare('SELECT name FROM revision WHERE entry = ? ORDER BY number DESC LIMIT 1').pluck().get(id) as string | undefined) ?? id;
}

