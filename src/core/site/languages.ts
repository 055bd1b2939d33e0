import { normalisePath } from '../address/path.ts';
import { rootOf } from '../design/language-spec.ts';
import { nameOfLanguage } from '../design/language-spec.ts';
import type { LanguageLink } from '../template/context.ts';
import type { Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';
import { fanValueOf } from './fan-values.ts';
import type { SiteReader } from './reader.ts';

/** What a page shows, as the other languages are asked for it. */
export type Shown =
  | { kind: 'entry'; id: string }
  | { kind: 'listing'; key: string; number: number; value: string | null }
  | { kind: 'front' }
  | { kind: 'nothing' };

/** Where a page stands in a language, and whether it is in its words there. */
interface Found {
  path: string;
  isOwn: boolean;
}

/** The site in the language below whose root a path stands: its own, or a further one. */
export function siteAtPath(site: CompiledSite, rawPath: string): CompiledSite {
  if (site.languages.length < 2) return site;
  const normal = normalisePath(rawPath);
  if (!normal.ok) return site;
  const { path } = normal;
  const found = site.languages.find(({ design }) => {
    const root = rootOf(design);
    return design.edition !== undefined && (path === root || path.startsWith(`${root}/`));
  });
  return found ?? site;
}

/**
 * What a page shows in each language of the site, the site's own first; where it is not there, the
 * front page of that language.
 */
export function languageLinks(
  site: CompiledSite,
  reader: SiteReader,
  validity: Validity,
  shown: Shown,
): LanguageLink[] {
  if (site.languages.length < 2) return [];
  return site.languages.map((other): LanguageLink => {
    const { site: settings, edition } = other.design;
    const own = other === site ? reader : reader.in(other);
    const found = foundIn(other, own, validity, shown);
    return {
      language: settings.language,
      label: edition?.label ?? ownLabel(site),
      path: found?.path ?? rootOf(other.design),
      isHere: other === site,
      isThere: found !== null,
      isOwn: found?.isOwn ?? false,
    };
  });
}

/** What sites in these languages call their own; asking for names of languages takes long. */
const OWN_LABELS = new WeakMap<readonly CompiledSite[], string>();

/** What a site calls its own language, in that. */
export function ownLabel({ languages }: Pick<CompiledSite, 'languages'>): string {
  let label = OWN_LABELS.get(languages);
  if (label === undefined) OWN_LABELS.set(languages, (label = labelOfOwn(languages)));
  return label;
}

/** What the site's own language is called: not of where, unless it is in others of the same. */
function labelOfOwn(languages: readonly CompiledSite[]): string {
  const [own, ...further] = languages.map(({ design }) => design.site.language);
  const [general] = own!.split('-');
  const isShared = further.some((other) => other.split('-')[0] === general);
  return nameOfLanguage(isShared ? own! : general!);
}

function foundIn(
  site: CompiledSite,
  reader: SiteReader,
  validity: Validity,
  shown: Shown,
): Found | null {
  if (shown.kind === 'nothing') return null;
  if (shown.kind === 'front') return { path: rootOf(site.design), isOwn: true };
  if (shown.kind === 'entry') {
    const entry = reader.liveEntries([shown.id], validity).get(shown.id);
    if (!entry || entry.path === null) return null;
    return { path: entry.path, isOwn: entry.language === undefined };
  }
  const { key, number, value } = shown;
  const plan = site.listings.get(key);
  if (!plan) return null;
  const { language } = site.design.site;
  const found =
    value === null ? undefined : fanValueOf({ plan, reader, validity, language }, value)?.path;
  const path =
    value !== null ? found : key === site.frontListing ? rootOf(site.design) : plan.listing.address;
  // How many pages there are is another matter in each language.
  return path === undefined ? null : { path, isOwn: number === 1 };
}
