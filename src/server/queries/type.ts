import type { SiteView } from './site-view.ts';
import { type Actor, permit } from '../commands/permit.ts';
import { applyEdit } from '../commands/release-design.ts';
import { entryName, shownValue } from './content.ts';
import { withEntries } from '../store/overlay-reader.ts';
import { entryWith, explainWith, newestValues, readerSeeing } from './preview.ts';
import type { Seeing } from './clock.ts';
import { StoredReader, RowCache } from '../store/site-reader.ts';
import { settledInstant } from '../store/write.ts';
import type { Issue } from '@/core/issue.ts';
import type { ContentType, Template } from '@/core/design/spec.ts';
import type { EntryView, Values } from '@/core/design/values.ts';
import type { TracedPart } from '@/core/pattern/compile.ts';
import { type CompiledSite, compileSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { PageScope } from '@/core/site/page-scope.ts';
import { renderEntry } from '@/core/site/render.ts';
import { Validity, type Instant } from '@/core/time/interval.ts';

/** What the Type screen shows of a type. */
export interface TypeDetail {
  spec: ContentType;
  /** Templates that read this type, for its choices. */
  templates: Pick<Template, 'key' | 'label' | 'kind'>[];
  specimens: { id: string; name: string }[];
  listings: { key: string; label: string; address: string | null }[];
}

/** Everything about a type, and entries to try it on. Null where there is no such type. */
export function typeDetail(
  view: SiteView,
  actor: Actor,
  key: string,
  at: Instant,
): TypeDetail | null {
  permit(actor, 'read-unpublished');
  const design = view.at(at)?.site.design;
  const spec = design?.types.find((t) => t.key === key);
  if (!design || !spec) return null;
  const sql =
    'SELECT e.id, r.name FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest WHERE e.type = ? ORDER BY EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND l.starts <= ? AND (l.ends IS NULL OR l.ends > ?)) DESC, length(r.name) DESC, e.id LIMIT 100';
  return {
    spec,
    templates: design.templates
      .filter((t) => t.type === key)
      .map(({ key: k, label, kind }) => ({ key: k, label, kind })),
    specimens: view.connection.driver.prepare(sql).all(key, at, at) as TypeDetail['specimens'],
    listings: design.listings
      .filter((l) => l.type === key)
      .map((l) => ({ key: l.key, label: l.label, address: l.address ?? null })),
  };
}

/** What a type, saved or not, makes of one entry. */
export interface TypeOutcome {
  issues: Issue[];
  specimen: string;
  standIn: boolean;
  path: string | null;
  /** Why there is no path, where there is none. */
  noPath: string | null;
  address: TracedPart[];
  title: string;
  description: string | null;
  page: string | null;
  automatic: boolean;
  /** A card in a page of its own. */
  card: string | null;
  fields: { label: string; value: string }[];
}

/** The outcome of an edited type for a specimen as of an instant; a stand-in where the type has no entries. */
export function typeOutcome(
  view: SiteView,
  actor: Actor,
  { key, spec, specimen }: { key: string; spec: unknown; specimen: string | null },
  at: Instant,
  seeing: Seeing,
): TypeOutcome | null {
  permit(actor, 'read-unpublished');
  const current = view.at(at);
  if (!current) return null;
  const edited = applyEdit(current.site.design, { part: 'types', key, spec });
  const site = edited.ok ? compileSite(edited.value).site : current.site;
  const type = site.types.get(key);
  if (!type) return null;
  const store = new StoredReader(
    view.connection,
    site,
    view.subjects,
    new RowCache(),
    settledInstant(view.connection),
  );
  const live =
    specimen === null ? undefined : store.liveEntries([specimen], new Validity(at)).get(specimen);
  const stored = live && seeing === 'published' ? live.values : newestValues(view, specimen, at);
  const values = stored ?? standInValues(type, view);
  const id = specimen ?? `${key}-stand-in`;
  const explained = explainWith(view, site, type, id, values, at);
  const path = explained?.built.ok ? explained.built.path : null;
  const entry: EntryView = {
    ...entryWith(view, site, live, { id, type, values, author: actor.name }, at),
    path,
  };
  const reader = withEntries(readerSeeing(view, actor, at, seeing, store), [entry]);
  const page = type.address === undefined ? null : renderEntry(site, reader, entry, at);
  return {
    issues: edited.ok ? [] : edited.issues,
    specimen: stored ? entryName(view, id) : 'Stand-in, never published',
    standIn: !stored,
    path,
    noPath:
      type.address === undefined
        ? 'This type has no address pattern: its entries stand in listings and on other pages.'
        : explained && !explained.built.ok
          ? explained.built.why === 'too-long'
            ? 'The address would be longer than 1,024 bytes.'
            : `{${explained.built.expression}} is blank, so the address would have an empty part.`
          : null,
    address: explained?.parts ?? [],
    title: page?.meta?.title ?? '',
    description: page?.meta?.description ?? null,
    page: page?.body ?? null,
    automatic: page?.automatic ?? false,
    card: cardHtml(site, reader, entry, at),
    fields: type.fields.map((f) => ({ label: f.label, value: shownValue(view, f, values, at) })),
  };
}

/** Invented values by field kind, for a type without entries. */
function standInValues(type: ContentType, view: SiteView): Values {
  const words = {
    text: `A sample ${type.label.toLowerCase()}`,
    paragraphs: 'A sentence or two that say what this is about.',
    number: 12,
    yesno: true,
    date: '2026-05-04',
    datetime: Date.UTC(2026, 4, 4, 9),
  };
  return Object.fromEntries(
    type.fields.flatMap((f): [string, unknown][] => {
      if (f.kind in words)
        return [
          [
            f.id,
            f.kind === 'text' && f.key !== type.naming
              ? f.label
              : words[f.kind as keyof typeof words],
          ],
        ];
      if (f.kind === 'choice') return [[f.id, f.options?.[0]?.key ?? null]];
      if (f.kind === 'category' || f.kind === 'tags')
        return [[f.id, view.subjects.all(f.set ?? '')[0]?.key ?? null]];
      if (f.kind === 'richtext')
        return [
          [
            f.id,
            {
              type: 'doc',
              content: [
                {
                  type: 'paragraph',
                  content: [{ type: 'text', text: 'The first paragraph of a story.' }],
                },
              ],
            },
          ],
        ];
      return [];
    }),
  );
}

function cardHtml(
  site: CompiledSite,
  reader: SiteReader,
  entry: EntryView,
  at: Instant,
): string | null {
  const card = site.templates.cards.get(entry.type.key);
  if (!card) return null;
  const scope = new PageScope(site, reader, new Validity(at));
  return `<ul class="cards"><li>${card.render(scope.of(entry))}</li></ul>`;
}
