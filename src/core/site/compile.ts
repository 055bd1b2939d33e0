import type { Issue } from '../issue.ts';
import { nearest } from '../text.ts';
import { type AddressRules, compileAddressRules } from '../address/rules.ts';
import { isReserved, normalisePath } from '../address/path.ts';
import { Environments } from '../design/environment.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { type ListingPlan, planListing } from '../listing/plan.ts';
import { type SeoBook, compileSeo } from '../metadata/rules.ts';
import { DEFAULT_STYLE } from '../template/default-style.ts';
import { type Templates, compileTemplates } from '../template/compile.ts';
import { checkDesign } from './check-design.ts';

/** A design made ready: closures and plans, independent of content and instant. */
export interface CompiledSite {
  design: Design;
  environments: Environments;
  types: Map<string, ContentType>;
  addresses: AddressRules;
  listings: Map<string, ListingPlan>;
  /** Listing keys by the address they stand at. */
  listingAt: Map<string, string>;
  templates: Templates;
  seo: SeoBook;
  /** By-hand redirects by normal path. */
  redirects: Map<string, { to: string; status: number }>;
  /** The style sheet of the pages: the design's, or the one for sites without. */
  css: string;
  /** Names the style sheet; changes whenever its text does. */
  styleKey: string;
}

/** Compiles a design. `issues` names everything wrong in it; the site is there all the same, less what is broken. */
export function compileSite(design: Design): { site: CompiledSite; issues: Issue[] } {
  const environments = new Environments(design);
  const issues: Issue[] = checkDesign(design);
  const addresses = compileAddressRules(design, environments);
  const templates = compileTemplates(design, environments);
  const seo = compileSeo(design, environments);
  const listings = new Map<string, ListingPlan>();
  for (const listing of design.listings) {
    const planned = planListing(listing, design);
    issues.push(
      ...planned.issues.map((issue) => ({
        ...issue,
        path: `listings/${listing.key}/${issue.path}`,
      })),
    );
    if (planned.plan) listings.set(listing.key, planned.plan);
  }
  const css = design.css.trim() === '' ? DEFAULT_STYLE : design.css;
  const site: CompiledSite = {
    design,
    environments,
    types: new Map(design.types.map((t) => [t.key, t])),
    addresses: addresses.rules,
    listings,
    listingAt: new Map(
      design.listings.flatMap((l) =>
        l.address === undefined ? [] : [[l.address, l.key] as const],
      ),
    ),
    templates: templates.templates,
    seo: seo.seo,
    redirects: new Map(
      design.redirects.map((r) => [normalOf(r.from), { to: r.to, status: r.status }]),
    ),
    css,
    styleKey: fingerprint(css),
  };
  return {
    site,
    issues: [
      ...issues,
      ...addresses.issues,
      ...templates.issues,
      ...seo.issues,
      ...frontIssues(design),
      ...reservedIssues(design),
    ],
  };
}

function normalOf(path: string): string {
  const normal = normalisePath(path);
  return normal.ok ? normal.path : path;
}

function frontIssues({ site, listings }: Design): Issue[] {
  const front = site.front;
  if (!front || !('listing' in front) || listings.some((l) => l.key === front.listing)) return [];
  const near = nearest(
    front.listing,
    listings.map((l) => l.key),
  );
  return [
    {
      code: 'unknown-listing',
      path: 'site/front',
      message: `There is no listing "${front.listing}".`,
      fix: near ? `Did you mean "${near}"?` : 'Name one of the listings.',
    },
  ];
}

function reservedIssues({ listings }: Design): Issue[] {
  return listings.flatMap((l) =>
    l.address !== undefined && isReserved(l.address)
      ? [
          {
            code: 'reserved-address',
            path: `listings/${l.key}/address`,
            message: `The site keeps ${l.address} for itself.`,
            fix: 'Choose another address.',
          },
        ]
      : [],
  );
}

/** 64-bit FNV-1a of a text, as hex: names a version of it, protects nothing. */
export function fingerprint(text: string): string {
  let hash = 0xcbf29ce484222325n;
  for (let i = 0; i < text.length; i++)
    hash = BigInt.asUintN(64, (hash ^ BigInt(text.charCodeAt(i))) * 0x100000001b3n);
  return hash.toString(16).padStart(16, '0');
}
