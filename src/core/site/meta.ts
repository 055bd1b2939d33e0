import { encodeAddress, isSafeTarget } from '../link.ts';
import { rootOf } from '../design/language-spec.ts';
import { ownPresets } from '../design/presets.ts';
import { isPicture } from '../design/media-formats.ts';
import type { EntryView, Media } from '../design/values.ts';
import { valuesOf } from '../design/values.ts';
import { feedPath, pagePath } from '../address/path.ts';
import type { PageMeta } from '../metadata/head.ts';
import type { CompiledSeo } from '../metadata/rules.ts';
import type { ListingShown } from '../template/context.ts';
import { wordsOf } from '../template/words.ts';
import type { CompiledPattern } from '../pattern/compile.ts';
import type { CompiledSite } from './compile.ts';
import type { PageScope } from './page-scope.ts';
import { picturePath } from './pictures.ts';

function firstOf(patterns: CompiledPattern[], scope: PageScope): string | null {
  for (const pattern of patterns) {
    const text = pattern.text(scope);
    if (text !== null) return text;
  }
  return null;
}

/** What the site says of every page, where its type or listing does not say otherwise. */
function base(site: CompiledSite, seo: CompiledSeo | undefined, scope: PageScope | null): PageMeta {
  const { name, language, sharePicture: id } = site.design.site;
  const shared = id === undefined ? null : (scope?.media(id) ?? null);
  return {
    title: name,
    description: null,
    canonical: null,
    index: seo?.index ?? true,
    follow: seo?.follow ?? true,
    language,
    siteName: name,
    shareType: seo?.shareType ?? 'website',
    picture: shared && sharePicture(site, shared),
    ...alternatesOf(site, scope),
  };
}

/** The same page in other languages, where it stands there in its words. */
function alternatesOf(site: CompiledSite, scope: PageScope | null): Pick<PageMeta, 'alternates'> {
  const there = scope?.languages().filter(({ isThere, isOwn }) => isThere && isOwn) ?? [];
  if (there.length < 2) return {};
  const alternates = there.map(({ language, path }) => ({
    language,
    href: absolute(site, path),
  }));
  return { alternates };
}

/** A picture as share cards have it, at a size that is served; null of what is no picture. */
function sharePicture(site: CompiledSite, media: Media): PageMeta['picture'] {
  if (!isPicture(media) || media.width === 0) return null;
  const width = Math.min(1200, media.width);
  return {
    url: site.design.site.url + picturePath(media, width),
    alt: media.alt,
    width,
    height: Math.max(1, Math.round((width * media.height) / media.width)),
  };
}

/** The metadata of an entry's page; the scope shows that entry. */
export function entryMeta(site: CompiledSite, scope: PageScope, entry: EntryView): PageMeta {
  const seo = site.seo.types.get(entry.type.key)!;
  scope.prefetch([entry], seo.needs);
  const { index, follow } = ownPresets(entry.values);
  const given = seo.canonical?.text(scope) ?? null;
  // What stands in for words that are not there is at home where they are.
  const home = entry.language === undefined ? entry.path : ownPath(site, scope);
  const canonical = given !== null && isSafeTarget(given) ? given : home;
  const own =
    seo.picture === null ? null : scope.media(String(valuesOf(entry.values, seo.picture)[0] ?? ''));
  const meta = base(site, seo, scope);
  if (index !== undefined) meta.index = index;
  if (follow !== undefined) meta.follow = follow;
  meta.language = entry.language ?? meta.language;
  meta.title = firstOf(seo.title, scope) ?? meta.title;
  meta.description = firstOf(seo.description, scope);
  meta.canonical = canonical === null ? null : absolute(site, canonical);
  if (own && isPicture(own)) meta.picture = sharePicture(site, own);
  return meta;
}

/** Where the page of an entry stands in the site's own language; null where it does not. */
function ownPath(site: CompiledSite, scope: PageScope): string | null {
  const own = scope.languages().find((_, i) => !site.languages[i]!.design.edition);
  return own?.isThere ? own.path : null;
}

/** The metadata of a page of a listing; the scope shows that listing. */
export function listingMeta(
  site: CompiledSite,
  scope: PageScope,
  shown: ListingShown,
  path: string,
): PageMeta {
  const seo = site.seo.listings.get(shown.key)!;
  const own = (shown.value && seo.ofValues) || seo;
  const title = firstOf(own.title, scope) ?? site.design.site.name;
  const suffix = shown.number > 1 ? ` · ${wordsOf(scope.language).page} ${shown.number}` : '';
  return {
    ...base(site, seo, scope),
    title: title + suffix,
    description: firstOf(own.description, scope),
    // What visitors want of a list is no page of its own.
    canonical: absolute(site, pagePath(path, shown.query === '' ? shown.number : 1)),
    ...(site.listings.get(shown.key)?.listing.feed ? { feeds: feedsAt(path) } : {}),
  };
}

const FEEDS = [
  ['application/atom+xml', 'atom'],
  ['application/feed+json', 'json'],
] as const;

function feedsAt(address: string): NonNullable<PageMeta['feeds']> {
  return FEEDS.map(([type, format]) => ({ type, href: feedPath(address, format) }));
}

/** The metadata of the automatic front page. */
export function frontMeta(site: CompiledSite, scope: PageScope | null): PageMeta {
  const { name, strapline } = site.design.site;
  return {
    ...base(site, undefined, scope),
    title: name,
    description: strapline.trim() === '' ? null : strapline,
    canonical: absolute(site, rootOf(site.design)),
  };
}

/** The metadata of a page that says why there is none. */
export function errorMeta(site: CompiledSite, title: string): PageMeta {
  return {
    ...base(site, undefined, null),
    title,
    description: null,
    canonical: null,
    index: false,
  };
}

function absolute(site: CompiledSite, pathOrUrl: string): string {
  const address = encodeAddress(pathOrUrl);
  return address.startsWith('/') ? site.design.site.url + address : address;
}
