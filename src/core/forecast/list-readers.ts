import type { ListingPlan } from '../listing/plan.ts';
import type { SiteReader } from '../site/reader.ts';

const MOST = 1_000_000;

/**
 * A reader for one instant that reads a listing as a whole once its further pages are asked for:
 * page after page would be counted from its beginning each time.
 */
export function withWholeLists(reader: SiteReader): SiteReader {
  let last: { plan: ListingPlan; list: ReturnType<SiteReader['listing']> } | null = null;
  const own = Object.create(reader) as SiteReader;
  own.listing = (plan, validity, offset, limit, without = []) => {
    if (offset === 0 || without.length > 0)
      return reader.listing(plan, validity, offset, limit, without);
    if (last?.plan !== plan) last = { plan, list: reader.listing(plan, validity, 0, MOST) };
    const { ids, total } = last.list;
    return { ids: ids.slice(offset, offset + limit), total };
  };
  return own;
}

/**
 * A reader to which every stretch of a listing has its first entry alone, and as many in all. A
 * page made so has a part of what the whole page has, in the same places: where it differs before
 * and after, the whole one does.
 */
export function withFirstEntries(reader: SiteReader): SiteReader {
  const own = Object.create(reader) as SiteReader;
  own.listing = (plan, validity, offset, limit, without = []) => {
    const { ids, total } = reader.listing(plan, validity, offset, limit, without);
    return { ids: ids.slice(0, 1), total };
  };
  return own;
}
