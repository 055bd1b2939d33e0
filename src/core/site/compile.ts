import type { Issue } from '../issue.ts';
import { unknownName } from '../did-you-mean.ts';
import { fingerprint } from '../fingerprint.ts';
import { type AddressRules, compileAddressRules } from '../address/rules.ts';
import { isReserved, normalisePath, splitPageNumber } from '../address/path.ts';
import { Environments } from '../design/environment.ts';
import { listingSpec } from '../design/listing-spec.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { noteTextForms } from '../design/text-form.ts';
import { planOtherSides } from '../listing/other-side.ts';
import { type ListingPlan } from '../listing/plan.ts';
import { planListing, planPublic } from '../listing/planner.ts';
import { type CompiledRule, compileTiming } from '../timing/rules.ts';
import { type SeoBook, compileSeo } from '../metadata/rules.ts';
import { sheetOf } from '../style/sheet.ts';
import { checkCss } from './check-css.ts';
import { type Templates, compileTemplates } from '../template/compile.ts';
import { checkDesign } from './check-design.ts';

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
  redirects: Map<string, { to: string; status: number }>;
  /** The style sheet of the pages: the design's, or the one for sites without. */
  css: string;
  /** Names the style sheet; changes whenever its text does. */
  styleKey: string;
}

/**
 * Compiles a design. `issues` names everything wrong in it; the site is there all the same, less
 * what is broken.
 */
export function compileSite(design: Design): { site: CompiledSite; issues: Issue[] } {
  noteTextForms(design);
  const environments = new Environments(design);
  const addresses = compileAddressRules(design, environments);
  const templates = compileTemplates(design, environments);
  const seo = compileSeo(design, environments);
  const listings = planListings(design);
  const timing = design.types.map((type) => ({ id: type.id, ...compileTiming(type, design) }));
  const css = sheetOf(design);
  const site: CompiledSite = {
    design,
    environments,
    ...partsByName(design),
    addresses: addresses.rules,
    timing: new Map(timing.flatMap(({ id, rules }) => (rules.length > 0 ? [[id, rules]] : []))),
    ...{ listings: listings.plans, fannedOut: fannedOutOf(listings.plans) },
    singles: planSingles(design),
    otherSides: planOtherSides(design),
    listingAt: listingsByAddress(design),
    ...frontOf(design, listings.plans),
    templates: templates.templates,
    seo: seo.seo,
    redirects: redirectsByPath(design),
    css,
    styleKey: fingerprint(css),
  };
  const issues = [
    ...checkDesign(design, environments),
    ...checkCss(design.css),
    ...listings.issues,
    ...timing.flatMap(({ issues }) => issues),
    ...addresses.issues,
    ...templates.issues,
    ...seo.issues,
    ...frontIssues(design),
    ...listingAddressIssues(design),
    ...redirectIssues(design),
  ];
  return { site, issues };
}

function redirectsByPath({ redirects }: Design): CompiledSite['redirects'] {
  return new Map(redirects.map(({ from, to, status }) => [normalOf(from), { to, status }]));
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

function normalOf(path: string): string {
  const normal = normalisePath(path);
  return normal.ok ? normal.path : path;
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
function listingAddressIssues({ listings }: Design): Issue[] {
  const addresses = new Set(listings.flatMap((l) => l.address ?? []));
  return listings.flatMap(({ key, address }) => {
    if (address === undefined) return [];
    const page = splitPageNumber(address);
    const message = isReserved(address)
      ? `The site keeps ${address} for itself.`
      : page && (addresses.has(page.address) || page.address === '/')
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

/**
 * Redirects by hand that cannot be: two from one path, from reserved paths and listings, in
 * circles.
 */
function redirectIssues({ redirects, listings }: Design): Issue[] {
  const addresses = new Set(listings.flatMap((l) => l.address ?? []));
  const from = new Map<string, string>();
  return redirects
    .flatMap((redirect, i) => {
      const start = normalOf(redirect.from);
      const issue = (message: string, fix: string): Issue[] => [
        { code: 'wrong-redirect', path: `redirects/${i + 1}/from`, message, fix },
      ];
      const again = from.has(start);
      if (!again) from.set(start, redirect.to);
      if (again) return issue(`Two redirects start at ${start}.`, 'Leave one of them out.');
      if (isReserved(start) || start === '/')
        return issue(`The site keeps ${start} for itself.`, 'Start at another path.');
      if (!normalisePath(redirect.from).ok)
        return issue(`${redirect.from} is no path.`, 'Write it like "/old".');
      if (addresses.has(start))
        return issue(`A listing stands at ${start}.`, 'Start at another path.');
      return [];
    })
    .concat(redirectCircles(redirects));
}

function redirectCircles(redirects: Design['redirects']): Issue[] {
  const next = new Map(redirects.map((r) => [normalOf(r.from), normalOf(r.to)]));
  const known = new Set<string>();
  return redirects.flatMap(({ from }, i) => {
    const way = new Set<string>();
    let at: string | undefined = normalOf(from);
    while (at !== undefined && !way.has(at) && !known.has(at)) {
      way.add(at);
      at = next.get(at);
    }
    const circle = at !== undefined && way.has(at);
    for (const path of way) known.add(path);
    return circle
      ? [
          {
            code: 'wrong-redirect',
            path: `redirects/${i + 1}/to`,
            message: `Redirects lead in a circle: ${[...way, at!].slice(0, 6).join(' → ')}.`,
            fix: 'Let one of them lead to a page.',
          },
        ]
      : [];
  });
}
