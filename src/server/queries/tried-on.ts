import type { ContentType } from '@/core/design/spec.ts';
import { withComputed } from '@/core/design/computed.ts';
import { isStandIn, standInValues } from '@/core/design/stand-in.ts';
import type { EntryView, Values } from '@/core/design/values.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { PageScope } from '@/core/site/page-scope.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { Validity, type Instant } from '@/core/time/interval.ts';
import type { Actor } from '../permit.ts';
import { withEntries } from '../store/overlay-reader.ts';
import type { StoredReader } from '../store/site-reader.ts';
import type { Seeing } from './clock.ts';
import { readerSeeing } from './drafts.ts';
import { type Prospect, entryWith, newestShown, prospectOf } from './preview.ts';
import type { SiteView } from './site-view.ts';

/** An entry that a design is tried on, as it would be in it. */
export interface TriedOn {
  id: string;
  live: EntryView | undefined;
  values: Values;
  /** Whether it is invented. */
  standIn: boolean;
  prospect: Prospect;
  entry: EntryView;
  /** Reads the site with the entry in it. */
  reader: SiteReader;
}

/** Tries a design on an entry of a type, or on a stand-in, as of an instant. */
export function triedOn(
  view: SiteView,
  actor: Actor,
  { site, type, specimen }: { site: CompiledSite; type: ContentType; specimen: string | null },
  { at, seeing }: { at: Instant; seeing: Seeing },
): TriedOn {
  const store = view.readerOf(site);
  const { language, ...shown } = shownAs(view, store, { site, type }, { specimen, at, seeing });
  const spoken = language === undefined ? {} : { language };
  const draft = { id: shown.id, type, values: shown.values, author: actor.name, ...spoken };
  const prospect = prospectOf(view, site, draft, at);
  const entry = entryWith(view, shown.live, draft, prospect.path, at);
  const others = readerSeeing(view, { actor, at, seeing }, { site, reader: store }, shown.id);
  const reader = withEntries(others, { entries: [entry], moved: prospect.moved });
  return { ...shown, prospect, entry, reader };
}

/** The specimen as one sees it, or a stand-in where there is none. */
function shownAs(
  view: SiteView,
  store: StoredReader,
  { site, type }: { site: CompiledSite; type: ContentType },
  { specimen, at, seeing }: { specimen: string | null; at: Instant; seeing: Seeing },
): Pick<TriedOn, 'id' | 'live' | 'values' | 'standIn'> & { language: string | undefined } {
  const live =
    specimen === null ? undefined : store.liveEntries([specimen], new Validity(at)).get(specimen);
  const stored =
    live && seeing === 'published' ? live : newestShown(view, type, specimen, at, site.design);
  return {
    id: specimen === null || isStandIn(specimen) ? `${type.key}-stand-in` : specimen,
    live,
    values: stored?.values ?? inventedValues(type, view, at, specimen),
    standIn: !stored,
    language: stored?.language,
  };
}

/** Why an entry has no path, where it has none. */
export function whyNoPath({ address }: ContentType, { path, refusal }: Prospect): string | null {
  if (path !== null) return null;
  return address === undefined
    ? 'This type has no address pattern: its entries stand in listings and on other pages.'
    : (refusal?.message ?? 'It would have no address.');
}

/** Invented values, with what is computed from them. */
function inventedValues(
  type: ContentType,
  view: SiteView,
  at: Instant,
  specimen: string | null,
): Values {
  const subjects = view.subjects(at);
  const world = { subjects: (set: string) => subjects.all(set).map((s) => s.key) };
  const which = specimen !== null && isStandIn(specimen) ? specimen : '~usual';
  const { site } = view.at(at)!.site.design;
  return withComputed(type.fields, standInValues(type, which, world), site);
}

/** The card of an entry's type as it stands in a list. */
export function cardHtml(
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
