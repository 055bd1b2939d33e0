import { encodeAddress } from '../link.ts';
import { rootOf } from '../design/language-spec.ts';
import { feedPath, splitFeed } from '../address/path.ts';
import { shownAuthor } from '../design/presets.ts';
import { type EntryView, nameOf } from '../design/values.ts';
import { fingerprint } from '../fingerprint.ts';
import { type FanValue, fanned } from '../listing/fan-out.ts';
import { newestFirst } from '../listing/newest.ts';
import type { ListingPlan } from '../listing/plan.ts';
import { type Feed, type FeedItem, atomXml, jsonFeed } from '../metadata/feed.ts';
import type { Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';
import { fanValueAt } from './fan-values.ts';
import { entryMeta, listingMeta } from './meta.ts';
import { PageScope } from './page-scope.ts';
import type { SiteReader } from './reader.ts';

/** A listing, or its list for one value, that has a feed; where its first page stands. */
export interface Fed {
  plan: ListingPlan;
  value: FanValue | null;
  address: string;
}

/** What has a feed at a path; null where nothing does. */
export function fedAt(
  site: CompiledSite,
  reader: SiteReader,
  path: string,
  validity: Validity,
): Fed | null {
  const address = splitFeed(path)?.address;
  if (address === undefined) return null;
  const root = rootOf(site.design);
  const key = address === root ? site.frontListing : site.listingAt.get(address);
  const plan = site.listings.get(key ?? '');
  if (plan && (address === root || key !== site.frontListing))
    return plan.listing.feed ? { plan, value: null, address } : null;
  const { language } = site.design.site;
  for (const each of site.fannedOut) {
    const value = fanValueAt({ plan: each, reader, validity, language }, address);
    if (value) return each.listing.feed ? { plan: each, value, address } : null;
  }
  return null;
}

/** The feed at a path, in the format that it ends with; null where there is none. */
export function feedFile(
  site: CompiledSite,
  reader: SiteReader,
  path: string,
  validity: Validity,
): { contentType: string; body: string } | null {
  const fed = fedAt(site, reader, path, validity);
  if (!fed) return null;
  const { format } = splitFeed(path)!;
  const self = site.design.site.url + encodeAddress(feedPath(fed.address, format));
  const feed = { ...feedOf(site, reader, fed, validity), self };
  return format === 'atom'
    ? { contentType: 'application/atom+xml; charset=utf-8', body: atomXml(feed) }
    : { contentType: 'application/feed+json; charset=utf-8', body: jsonFeed(feed) };
}

function feedOf(
  site: CompiledSite,
  reader: SiteReader,
  { plan, value, address }: Fed,
  validity: Validity,
): Omit<Feed, 'self'> {
  const { url, name, language } = site.design.site;
  const { key, id, feed } = plan.listing;
  const inLanguage = plan.type.edition === undefined ? '' : ` in ${plan.type.edition}`;
  const list = newestFirst(value ? fanned(plan, value.key) : plan);
  const scope = new PageScope(site, reader, validity);
  const { ids } = reader.listing(list, validity, 0, feed!.size);
  const entries = scope.entries(ids);
  const shown = {
    key,
    entries,
    number: 1,
    count: 1,
    ...{ total: 0, query: '' },
    address,
    value,
    empty: '',
    card: () => '',
    needs: [],
  };
  const { title } = listingMeta(site, scope.showListing(shown), shown, address);
  return {
    id: urn(`listing ${url} ${id} ${value?.key ?? ''}${inLanguage}`),
    ...{ title, language, author: name, home: url + encodeAddress(address) },
    items: entries.flatMap((entry) => itemOf(site, reader, entry, validity) ?? []),
  };
}

/** What is told of an entry; null where it has no page to lead to. */
function itemOf(
  site: CompiledSite,
  reader: SiteReader,
  entry: EntryView,
  validity: Validity,
): FeedItem | null {
  const { id, created, path, published, updated } = entry;
  if (path === null) return null;
  const scope = new PageScope(site, reader, validity).show(entry);
  return {
    id: urn(
      `entry ${id} ${created}${entry.type.edition === undefined ? '' : ` in ${entry.type.edition}`}`,
    ),
    url: site.design.site.url + encodeAddress(path),
    title: nameOf(entry),
    summary: entryMeta(site, scope, entry).description,
    author: shownAuthor(entry),
    published: published ?? created,
    updated: updated ?? created,
  };
}

/** A name for good (RFC 9562, version 8: made of what is named, by our own rule). */
function urn(named: string): string {
  const hex = fingerprint(named) + fingerprint(`${named} again`);
  const variant = '89ab'[Number.parseInt(hex[16]!, 16) % 4]!;
  const parts = [
    hex.slice(0, 8),
    hex.slice(8, 12),
    `8${hex.slice(13, 16)}`,
    variant + hex.slice(17, 20),
    hex.slice(20),
  ];
  return `urn:uuid:${parts.join('-')}`;
}
