import { type Issue, at } from '../issue.ts';
import { unknownName } from '../did-you-mean.ts';
import { fingerprint } from '../fingerprint.ts';
import { type AddressRules, compileAddressRules } from '../address/rules.ts';
import { isReserved, splitPageNumber } from '../address/path.ts';
import { type Redirects, redirectIssues, redirectsOf } from './redirects.ts';
import { Environments } from '../design/environment.ts';
import { rootOf } from '../design/language-spec.ts';
import { listingSpec } from '../design/listing-spec.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { noteTextForms } from '../design/text-form.ts';
import { inLanguage, withTemplatesOf } from '../design/texts.ts';
import { planOtherSides } from '../listing/other-side.ts';
import { type ListingPlan } from '../listing/plan.ts';
import { planListing, planPublic } from '../listing/planner.ts';
import { type CompiledRule, compileTiming } from '../timing/rules.ts';
import { type SeoBook, compileSeo } from '../metadata/rules.ts';
import { sheetOf } from '../style/sheet.ts';
import { checkCss } from './check-css.ts';
import { type Templates, compileTemplates } from '../template/compile.ts';
import { checkDesign } from './check-design.ts';
import { languageIssues } from './language-issues.ts';

/** A design made ready: closures and plans, independent of content and instant. */
export interface CompiledSite {
  design: Design;
  environments: Environments;
  /** By id, as entries name them. */
  types: Map<string, ContentType>;
  /** By key, as patterns, files and addresses of screens name them. */
  typesByKey: Map<string, ContentType>;
  /** Ids of the subject sets by key. */
  setIds: Map<string, string>;
  /** Ids of the picks by key. */
  picksIds: Map<string, string>;
  addresses: AddressRules;
  /** The timing rules of each type that has any, by its id. */
  timing: Map<string, CompiledRule[]>;
  listings: Map<string, ListingPlan>;
  /** Where the entry of each single type is looked for, by the type's key. */
  singles: Map<string, ListingPlan>;
  /** Lists of the entries that lead to one by a reference, by `otherSideId`. */
  otherSides: Map<string, ListingPlan>;
  /** Listings that have a page for each value. */
  fannedOut: readonly ListingPlan[];
  /** Listing keys by the address they stand at. */
  listingAt: Map<string, string>;
  templates: Templates;
  seo: SeoBook;
  /** Key of the listing chosen for `/`; null where none is. */
  frontListing: string | null;
  /** Id of the entry chosen for `/`; null where none is. */
  frontEntry: string | null;
  /** By-hand redirects by normal path. */
  redirects: Redirects;
  /** The style sheet of the pages: the design's, or the one for sites without. */
  css: string;
  /** Names the style sheet; changes whenever its text does. */
  styleKey: string;
  /** The site in each of its languages, its own first; all of them have the same. */
  languages: readonly CompiledSite[];
}

/** A site, and everything that is wrong in its design. */
interface Compiled {
  site: CompiledSite;
  issues: Issue[];
}

/**
 * Compiles a design, in all of its languages. `issues` names everything wrong in it; the site is
 * there all the same, less what is broken. Given the site of a design that differs from it in
 * templates alone, what does not read templates is taken from there.
 */
export function compileSite(design: Design, before: CompiledSite | null = null): Compiled {
  const like = before && differInTemplatesAlone(before.design, design) ? before : null;
  const own = compileIn(design, like);
  if (design.languages.length === 0) return own;
  const known = new Set(own.issues.map(issueKey));
  const further = design.languages.map((language, i) => {
    const there = like?.languages[i + 1] ?? null;
    const said = there
      ? withTemplatesOf(design, language, there.design)
      : inLanguage(design, language);
    const { site, issues } = compileIn(said, there);
    const path = `languages/${language.key}/texts`;
    return {
      site,
      issues: at(
        path,
        issues.filter((issue) => !known.has(issueKey(issue))),
      ),
    };
  });
  const languages = [own.site, ...further.map(({ site }) => site)];
  for (const site of languages) site.languages = languages;
  const issues = further.flatMap((compiled) => compiled.issues);
  return { site: own.site, issues: [...own.issues, ...languageIssues(design), ...issues] };
}

const issueKey = ({ code, path, message }: Issue): string => JSON.stringify([code, path, message]);

/** Whether two designs have all but their templates in common: the very same parts. */
function differInTemplatesAlone(a: Design, b: Design): boolean {
  const names = new Set([...Object.keys(a), ...Object.keys(b)]) as Set<keyof Design>;
  names.delete('templates');
  return [...names].every((name) => a[name] === b[name]);
}

/** Compiles a design in one language. */
function compileIn(design: Design, like: CompiledSite | null): Compiled {
  const ground = (like && GROUNDS.get(like)) ?? groundOf(design);
  const { environments } = ground.parts;
  const { templates, issues } = compileTemplates(design, environments);
  const site: CompiledSite = { design, ...ground.parts, templates, languages: [] };
  site.languages = [site];
  GROUNDS.set(site, ground);
  return { site, issues: [...checkDesign(design, environments), ...ground.issues, ...issues] };
}

/** What of a compiled site is the same whatever templates it has, and what is wrong in it. */
interface Ground {
  parts: Omit<CompiledSite, 'design' | 'templates' | 'languages'>;
  issues: Issue[];
}

/** What each site was compiled on. */
const GROUNDS = new WeakMap<CompiledSite, Ground>();

function groundOf(design: Design): Ground {
  noteTextForms(design);
  const environments = new Environments(design);
  const addresses = compileAddressRules(design, environments);
  const seo = compileSeo(design, environments);
  const listings = planListings(design);
  const timing = design.types.map((type) => ({ id: type.id, ...compileTiming(type, design) }));
  const css = sheetOf(design);
  const parts: Ground['parts'] = {
    environments,
    ...partsByName(design),
    addresses: addresses.rules,
    timing: new Map(timing.flatMap(({ id, rules }) => (rules.length > 0 ? [[id, rules]] : []))),
    ...{ listings: listings.plans, fannedOut: fannedOutOf(listings.plans) },
    singles: planSingles(design),
    otherSides: planOtherSides(design),
    listingAt: listingsByAddress(design),
    ...frontOf(design, listings.plans),
    seo: seo.seo,
    redirects: redirectsOf(design),
    css,
    styleKey: fingerprint(css),
  };
  const issues = [
    ...checkCss(design.css),
    ...listings.issues,
    ...timing.flatMap((rules) => rules.issues),
    ...addresses.issues,
    ...seo.issues,
    ...addressIssues(design),
  ];
  return { parts, issues };
}

function addressIssues(design: Design): Issue[] {
  return [...frontIssues(design), ...listingAddressIssues(design), ...redirectIssues(design)];
}

function listingsByAddress({ listings }: Design): CompiledSite['listingAt'] {
  return new Map(
    listings.flatMap(({ address, key }) =>
      address === undefined ? [] : [[address, key] as const],
    ),
  );
}

function partsByName({
  types,
  subjectSets,
  picks,
}: Design): Pick<CompiledSite, 'types' | 'typesByKey' | 'setIds' | 'picksIds'> {
  return {
    types: new Map(types.map((t) => [t.id, t])),
    typesByKey: new Map(types.map((t) => [t.key, t])),
    setIds: new Map(subjectSets.map((s) => [s.key, s.id])),
    picksIds: new Map(picks.map((p) => [p.key, p.id])),
  };
}

function planListings(design: Design): { plans: Map<string, ListingPlan>; issues: Issue[] } {
  const plans = new Map<string, ListingPlan>();
  const issues: Issue[] = [];
  for (const listing of design.listings) {
    const planned = planPublic(listing, design);
    const path = `listings/${listing.key}`;
    issues.push(...planned.issues.map((issue) => ({ ...issue, path: `${path}/${issue.path}` })));
    if (planned.plan) plans.set(listing.key, planned.plan);
  }
  return { plans, issues };
}

function fannedOutOf(plans: ReadonlyMap<string, ListingPlan>): ListingPlan[] {
  return [...plans.values()].filter(({ each }) => each !== null);
}

/** The entry of a single type is the first, and only, one of a listing of all there are. */
function planSingles(design: Design): Map<string, ListingPlan> {
  return new Map(
    design.types.flatMap(({ key, single }) => {
      if (!single) return [];
      const listing = { ...listingSpec.parse({ key: 'only', type: key }), id: `only of ${key}` };
      const { plan } = planListing(listing, design);
      return plan ? [[key, plan] as const] : [];
    }),
  );
}

/** What is chosen for `/`, where it can be shown. */
function frontOf(
  { site: { front } }: Design,
  plans: ReadonlyMap<string, ListingPlan>,
): Pick<CompiledSite, 'frontListing' | 'frontEntry'> {
  return {
    frontListing: front && 'listing' in front && plans.has(front.listing) ? front.listing : null,
    frontEntry: front && 'entry' in front ? front.entry : null,
  };
}

function frontIssues({ site, listings }: Design): Issue[] {
  const front = site.front;
  if (!front || !('listing' in front) || listings.some((l) => l.key === front.listing)) return [];
  const keys = listings.map((l) => l.key);
  return [
    unknownName('site/front', `There is no listing "${front.listing}".`, front.listing, keys),
  ];
}

/** Listing addresses that cannot be had: kept by the site, or a page of another listing. */
function listingAddressIssues(design: Design): Issue[] {
  const { listings } = design;
  const addresses = new Set(listings.flatMap((l) => l.address ?? []));
  return listings.flatMap(({ key, address }) => {
    if (address === undefined) return [];
    const page = splitPageNumber(address);
    const message = isReserved(address)
      ? `The site keeps ${address} for itself.`
      : page && (addresses.has(page.address) || page.address === rootOf(design))
        ? `${address} is a page of the listing at ${page.address}.`
        : null;
    return message === null
      ? []
      : [
          {
            code: 'reserved-address',
            path: `listings/${key}/address`,
            message,
            fix: 'Choose another address.',
          },
        ];
  });
}
