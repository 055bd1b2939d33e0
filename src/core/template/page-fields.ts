import { type Listing, conditionSpecs, elsewhereOf } from '../design/listing-spec.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { lackingFor } from '../listing/of-page.ts';
import { planListing } from '../listing/planner.ts';

/**
 * The fields of the page's entry that a listing compares with and that a type has not, or of
 * another kind; all of them where there is no entry.
 */
export function fieldsLacking(
  listing: Listing,
  design: Design,
  type: ContentType | null,
): string[] {
  const compared = pageFieldsOf(listing);
  if (compared.length === 0 || !type) return compared;
  const { plan } = planListing(listing, design);
  // What is wrong with the listing is said of that.
  return plan ? lackingFor(plan, type) : [];
}

/** The fields of the page's entry that a listing compares with. */
export function pageFieldsOf({ where }: Pick<Listing, 'where'>): string[] {
  return conditionSpecs(where).flatMap((condition) => {
    const elsewhere = elsewhereOf(condition);
    return elsewhere && 'page' in elsewhere ? [elsewhere.page] : [];
  });
}
