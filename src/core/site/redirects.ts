import type { Issue } from '../issue.ts';
import { isReserved, normalisePath } from '../address/path.ts';
import type { Design } from '../design/spec.ts';

/** A redirect set by hand, from a path in normal form. */
export interface ByHand {
  id: string;
  from: string;
  to: string;
  status: number;
  /** Whether it leads on all below its path, too, with what follows there. */
  isPrefix: boolean;
}

/** Redirects set by hand, by the path that they start at. */
export type Redirects = ReadonlyMap<string, ByHand>;

/** The redirects of a design, by where they start; of two from one path the last. */
export function redirectsOf({ redirects }: Pick<Design, 'redirects'>): Map<string, ByHand> {
  return new Map(
    redirects.map(({ id, from, to, status, prefix }) => {
      const start = normalOf(from);
      return [start, { id: id!, from: start, to, status, isPrefix: prefix === true }];
    }),
  );
}

/**
 * The redirect that answers a path in normal form, with where it leads: the one from there, else
 * that from the longest path above it which leads on all below. Null where none does.
 */
export function redirectAt(
  redirects: Redirects,
  path: string,
): { byHand: ByHand; location: string } | null {
  if (redirects.size === 0) return null;
  const exact = redirects.get(path);
  if (exact) return { byHand: exact, location: exact.to };
  for (let end = path.lastIndexOf('/'); end > 0; end = path.lastIndexOf('/', end - 1)) {
    const byHand = redirects.get(path.slice(0, end));
    if (byHand?.isPrefix) return { byHand, location: below(byHand.to, path.slice(end)) };
  }
  return null;
}

/** A target with what followed the path that led there; before its query and fragment. */
function below(to: string, rest: string): string {
  const mark = to.search(/[?#]/);
  const [base, after] = mark < 0 ? [to, ''] : [to.slice(0, mark), to.slice(mark)];
  const segments = rest.split('/').map(encodeURIComponent).join('/');
  return `${base.replace(/\/+$/, '')}${segments}${after}`;
}

/** A path as redirects compare it: in normal form, as it stands where it has none. */
export function normalOf(path: string): string {
  const normal = normalisePath(path);
  return normal.ok ? normal.path : path;
}

/** Browsers follow no more. */
const MOST_HOPS = 20;

/**
 * Where following redirects by hand from a path ends; null where it leads in a circle, or further
 * than browsers follow. Where something stands, by its path in normal form, no redirect leads on.
 */
export function endOfRedirects(
  redirects: Redirects,
  path: string,
  isTaken: (path: string) => boolean = () => false,
): string | null {
  let at = path;
  for (let hops = 0; hops <= MOST_HOPS; hops++) {
    const start = normalOf(pathOf(at));
    const next = at.startsWith('/') ? redirectAt(redirects, start) : null;
    if (!next || (hops > 0 && isTaken(start))) return at;
    at = next.location;
  }
  return null;
}

/** An address without its query and fragment. */
export const pathOf = (address: string): string => address.split(/[?#]/, 1)[0]!;

/** What is wrong with redirects by hand, besides their form. */
export function redirectIssues(design: Pick<Design, 'redirects' | 'listings'>): Issue[] {
  const { redirects, listings } = design;
  const addresses = new Set(listings.flatMap((l) => l.address ?? []));
  const all = redirectsOf(design);
  const from = new Set<string>();
  return redirects.flatMap((redirect, i) => {
    const start = normalOf(redirect.from);
    const issue = (property: string, message: string, fix: string): Issue[] => [
      { code: 'wrong-redirect', path: `redirects/${i + 1}/${property}`, message, fix },
    ];
    if (from.has(start))
      return issue('from', `Two redirects start at ${start}.`, 'Leave one of them out.');
    from.add(start);
    const wrong = wrongStart(redirect.from, addresses);
    if (wrong) return issue('from', wrong.message, wrong.fix);
    if (redirect.prefix && !/^(\/|https?:)/i.test(redirect.to))
      return issue(
        'to',
        `What is below ${start} cannot be led on to ${redirect.to}.`,
        'Lead to a path or a page, or leave "prefix" out.',
      );
    if (leadsInCircle(all, redirect, start))
      return issue('to', `It leads in a circle: ${circleOf(all, start)}.`, LEAD_TO_A_PAGE);
    return [];
  });
}

const LEAD_TO_A_PAGE = 'Let one of them lead to a page.';

/** Why no redirect can start at a path; null where one can. `listings`: the addresses of those. */
export function wrongStart(
  given: string,
  listings: ReadonlySet<string>,
): { message: string; fix: string } | null {
  const start = normalOf(given);
  const fix = 'Start at another path.';
  if (isReserved(start) || start === '/')
    return { message: `The site keeps ${start} for itself.`, fix };
  if (!normalisePath(given).ok)
    return { message: `${given} is no path.`, fix: 'Write it like "/old".' };
  return listings.has(start) ? { message: `A listing stands at ${start}.`, fix } : null;
}

/** Whether following a redirect, or what is below it, never ends. */
function leadsInCircle(
  all: Redirects,
  { prefix }: { prefix?: boolean | undefined },
  start: string,
): boolean {
  const isCircle = endOfRedirects(all, start) === null;
  return isCircle || (prefix === true && endOfRedirects(all, `${start}/x`) === null);
}

function circleOf(all: Redirects, start: string): string {
  const way = [start];
  while (way.length < 6) {
    const next = redirectAt(all, normalOf(pathOf(way.at(-1)!)));
    if (!next) break;
    way.push(next.location);
    if (way.indexOf(next.location) < way.length - 1) break;
  }
  return way.join(' → ');
}
