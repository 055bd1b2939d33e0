import { normalisePath, splitPageNumber } from '../address/path.ts';
import { rootOf } from '../design/language-spec.ts';
import { partsOf } from '../listing/parts.ts';
import type { Column } from '../listing/columns.ts';
import type { ListingPlan } from '../listing/plan.ts';
import { ORDER_PARAMETER, SEARCH_PARAMETER } from '../listing/visitors.ts';
import { LONGEST_SEARCH, soughtIn } from '../listing/search.ts';
import { PLAIN_VISIT, type Visit } from '../listing/visit.ts';
import { compareCodePoints, foldSpace, searchKey } from '../text.ts';
import type { Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';
import type { SiteReader } from './reader.ts';

/** A parameter of an address, decoded (WHATWG URL, "application/x-www-form-urlencoded"). */
export type Parameter = readonly [name: string, value: string];

/** So many values of one field are read; what is beyond is left out. */
const MOST_VALUES = 50;

/** Where the values of parameters are looked up. */
export interface VisitWorld {
  site: CompiledSite;
  reader: Pick<SiteReader, 'subject' | 'typeOf'>;
  validity: Validity;
}

/**
 * What the visitor of a path wants of the listing whose page stands there, and the parameters that
 * say so and nothing else, in the order in which the listing declares them: '' where nothing is
 * wanted, or nothing can be.
 */
export function visitAt(
  world: VisitWorld,
  path: string,
  parameters: readonly Parameter[],
): { visit: Visit; query: string } {
  const plan = parameters.length === 0 ? null : listingAt(world.site, path);
  const visit = plan ? visitOf(world, plan, parameters) : PLAIN_VISIT;
  return { visit, query: plan ? queryOf(plan, visit) : '' };
}

/** What a visitor wants of a listing; what it does not know of is passed over. */
export function visitOf(
  world: VisitWorld,
  plan: ListingPlan,
  parameters: readonly Parameter[],
): Visit {
  const { visitor } = plan;
  if (!visitor || parameters.length === 0) return PLAIN_VISIT;
  const given = (wanted: string): string[] =>
    parameters.flatMap(([name, value]) =>
      name === wanted || name === `${wanted}[]` ? [value] : [],
    );
  const wanted = visitor.filters.flatMap(({ name }): [string, string[]][] => {
    const values = known(world, plan, name, given(name));
    return values.length === 0 ? [] : [[name, values]];
  });
  const order = given(ORDER_PARAMETER).find((key) => visitor.orders.some((o) => o.key === key));
  const isSearched = partsOf(plan).some((part) => (part.visitor?.search.length ?? 0) > 0);
  const search = isSearched ? searchOf(given(SEARCH_PARAMETER)[0] ?? '') : '';
  return { wanted: new Map(wanted), search, order: order ?? null };
}

function searchOf(text: string): string {
  const search = [...foldSpace(text)].slice(0, LONGEST_SEARCH).join('');
  return soughtIn(searchKey(search)).length === 0 ? '' : search;
}

/** The parameters by which an address says what a visitor wants; '' where that is nothing. */
export function queryOf({ visitor }: ListingPlan, { wanted, search, order }: Visit): string {
  const filters = (visitor?.filters ?? []).flatMap(({ name }) =>
    (wanted.get(name) ?? []).map((value): Parameter => [name, value]),
  );
  const all: Parameter[] = [
    ...filters,
    ...(order === null ? [] : [[ORDER_PARAMETER, order] as const]),
    ...(search === '' ? [] : [[SEARCH_PARAMETER, search] as const]),
  ];
  return all.map((pair) => pair.map(encodeURIComponent).join('=')).join('&');
}

/** The values that are there, each once, in one order whatever the order they are given in. */
function known(
  world: VisitWorld,
  plan: ListingPlan,
  name: string,
  given: readonly string[],
): string[] {
  const columns = partsOf(plan).flatMap(
    ({ visitor }) => visitor?.filters.find((c) => c.name === name && !c.isAbsent) ?? [],
  );
  const values = given.slice(0, MOST_VALUES).flatMap((value) => {
    for (const column of columns) {
      const found = valueIn(world, column, value);
      if (found !== null) return [found];
    }
    return [];
  });
  return [...new Set(values)].sort(compareCodePoints);
}

/** A value as it is by now; null where a column has no such value. */
function valueIn(
  { site, reader, validity }: VisitWorld,
  { family, target, field }: Column,
  value: string,
): string | null {
  if (family === 'yesno') return value === 'yes' || value === 'no' ? value : null;
  if (target?.of === 'subjects') return reader.subject(target.set, value, validity)?.key ?? null;
  if (target?.of !== 'entries')
    return (field?.options ?? []).some(({ key }) => key === value) ? value : null;
  const type = site.types.get(reader.typeOf(value) ?? '')?.key;
  return type !== undefined && (target.types?.includes(type) ?? true) ? value : null;
}

/** The listing of whose pages one stands at a path, where visitors may do something with it. */
function listingAt(site: CompiledSite, path: string): ListingPlan | null {
  const normal = normalisePath(path);
  if (!normal.ok) return null;
  const address = splitPageNumber(normal.path)?.address ?? normal.path;
  const key = address === rootOf(site.design) ? site.frontListing : site.listingAt.get(address);
  const plan =
    site.listings.get(key ?? '') ??
    site.fannedOut.find(({ listing }) => address.startsWith(`${listing.address}/`));
  return plan?.visitor ? plan : null;
}
