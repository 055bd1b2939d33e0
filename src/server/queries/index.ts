import { addressRows } from './addresses.ts';
import { addressTree } from './address-tree.ts';
import { addressClashes } from './address-clashes.ts';
import { redirectLines } from './redirects.ts';
import { lostPaths } from './lost-paths.ts';
import { tryAddress } from './try-address.ts';
import { benchDetail } from './bench.ts';
import { shellDetail } from './clock.ts';
import { contentTable } from './content.ts';
import { entryDetail, newEntry } from './entry.ts';
import { entryOutcome, retireReach, whereSeen } from './entry-outcome.ts';
import { listingDetail, listingOutcome } from './listing.ts';
import { findEntries } from './offers.ts';
import { mediaFound } from './media.ts';
import { picksDetail, picksList } from './picks.ts';
import { settingsDetail, settingsOutcome } from './settings.ts';
import { styleDetail, styleOutcome } from './style.ts';
import type { SiteView } from './site-view.ts';
import { goneEntry } from './purge.ts';
import { publicFile } from './public-file.ts';
import { sourcesDetail } from './sources.ts';
import { starterDetail } from './starters.ts';
import { subjectsDetail } from './subjects.ts';
import { templateDetail, templatesDetail } from './template.ts';
import { templateOutcome } from './template-outcome.ts';
import { languagesDetail } from './languages.ts';
import { textsDetail } from './texts.ts';
import { todayDetail } from './today.ts';
import { typeDetail, typeOutcome } from './type.ts';
import { typesDetail } from './types.ts';
import { viewedPage } from './view-page.ts';

/** Every query the reader thread answers, by name. */
export const QUERIES = {
  shellDetail,
  todayDetail,
  benchDetail,
  settingsDetail,
  settingsOutcome,
  styleDetail,
  styleOutcome,
  subjectsDetail,
  languagesDetail,
  textsDetail,
  picksDetail,
  picksList,
  mediaFound,
  sourcesDetail,
  contentTable,
  entryDetail,
  goneEntry,
  newEntry,
  starterDetail,
  entryOutcome,
  whereSeen,
  retireReach,
  findEntries,
  typesDetail,
  typeDetail,
  typeOutcome,
  templatesDetail,
  templateDetail,
  templateOutcome,
  listingDetail,
  listingOutcome,
  addressRows,
  addressTree,
  addressClashes,
  redirectLines,
  lostPaths,
  tryAddress,
  viewedPage,
  publicFile,
} as const;
/** The name of a query. */
export type QueryName = keyof typeof QUERIES;
type AfterView<F> = F extends (view: SiteView, ...rest: infer R) => unknown ? R : never;
/** What a query takes after the view. */
export type QueryInput<N extends QueryName> = AfterView<(typeof QUERIES)[N]>;
/** What a query gives. */
export type QueryResult<N extends QueryName> = ReturnType<(typeof QUERIES)[N]>;

/** Whether there is a query of a name. */
export function isQuery(name: string): name is QueryName {
  return Object.hasOwn(QUERIES, name);
}
