import type { Actor } from '../commands/permit.ts';
import { withEntries } from '../store/overlay-reader.ts';
import { readValues } from '../store/stored-values.ts';
import { StoredTimeline } from '../store/timeline-source.ts';
import type { Seeing } from './clock.ts';
import type { SiteView } from './site-view.ts';
import { type ExplainedBase, explainBase } from '@/core/address/simulate.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { EntryView, Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';

/** The address an entry would get with other values, before clashes; null for a type without addresses. */
export function explainWith(
  view: SiteView,
  site: CompiledSite,
  type: ContentType,
  id: string,
  values: Values,
  at: Instant,
): ExplainedBase | null {
  if (type.address === undefined) return null;
  const stored = new StoredTimeline(view.connection, site, at);
  const known = stored.entry(id);
  const number = (known?.revisions.at(-1)?.number ?? 0) + 1;
  const entry = {
    id,
    created: at,
    author: '',
    plans: [],
    byHand: [],
    ...known,
    type,
    revisions: [...(known?.revisions ?? []), { number, saved: at, values, author: '' }],
  };
  const source = Object.create(stored) as StoredTimeline;
  source.entry = (other) => (other === id ? entry : stored.entry(other));
  source.standing = (other) =>
    other === id
      ? { ...stored.standing(id), live: null, lastRevision: number }
      : stored.standing(other);
  return explainBase(site.addresses, source, id, at);
}

/** An entry with other values as if they were live at an instant, at the address it has or would get. */
export function entryWith(
  view: SiteView,
  site: CompiledSite,
  live: EntryView | undefined,
  { id, type, values, author }: Pick<EntryView, 'id' | 'type' | 'values' | 'author'>,
  at: Instant,
): EntryView {
  if (live) return { ...live, type, values };
  const explained = explainWith(view, site, type, id, values, at);
  return {
    id,
    type,
    values,
    author,
    created: at,
    published: at,
    updated: at,
    state: 'draft',
    path: explained?.built.ok ? explained.built.path : null,
  };
}

/** The values of an entry's newest revision; none where nothing is saved. */
export function newestValues(view: SiteView, id: string | null, at: Instant): Values | null {
  const json = view.connection.driver
    .prepare(
      'SELECT r."values" FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest WHERE e.id = ?',
    )
    .pluck()
    .get(id) as string | undefined;
  return json === undefined ? null : readValues(json, view.at(at)!.site.design.site.language);
}

const MOST_DRAFTS = 200;

/** A person's drafts, saved by an instant, as if they were published then, the latest saved first; none where one sees what is published. */
export function draftsSeen(view: SiteView, actor: Actor, at: Instant, seeing: Seeing): EntryView[] {
  const found = seeing === 'published' ? null : view.at(at);
  if (!found) return [];
  const sql =
    'SELECT e.id, e.type, r."values" AS json, r.author FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest WHERE e.unpublished = 1 AND r.saved <= ? AND r.author = ? ORDER BY r.saved DESC, r.entry LIMIT ?';
  const rows = view.connection.driver.prepare(sql).all(at, actor.name, MOST_DRAFTS) as {
    id: string;
    type: string;
    json: string;
    author: string;
  }[];
  const live = found.reader.liveEntries(
    rows.map((r) => r.id),
    new Validity(at),
  );
  return rows.flatMap(({ id, type: key, json, author }) => {
    const type = found.site.types.get(key);
    return type
      ? [
          entryWith(
            view,
            found.site,
            live.get(id),
            { id, type, values: readValues(json, found.site.design.site.language), author },
            at,
          ),
        ]
      : [];
  });
}

/** A reader as of an instant that sees what is published, or that with a person's drafts in its place. */
export function readerSeeing(
  view: SiteView,
  actor: Actor,
  at: Instant,
  seeing: Seeing,
  reader: SiteReader,
): SiteReader {
  return withEntries(reader, draftsSeen(view, actor, at, seeing));
}
