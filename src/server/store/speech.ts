import { rootOf } from '@/core/design/language-spec.ts';
import { BEGINNING, type Instant, type Interval } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { designsOf } from './design-store.ts';
import { type DesignsAhead, NO_SITE, siteIn, sitesOf } from './designs-ahead.ts';
import type { Speech } from './language-facts.ts';

/** In which language designs are read where the site is in several; null where it is not. */
export function speechOf(designs: DesignsAhead): Speech | null {
  const all = sitesOf(designs);
  const languages = all.flatMap((site) => site.languages);
  const further = languages.filter(({ design }) => design.edition);
  if (further.length === 0) return null;
  const design = all.find(({ design }) => design.edition)?.design ?? designs.first.design;
  return {
    design,
    further: new Set(further.map((site) => site.design.site.language)),
    roots: further.map((site) => rootOf(site.design)),
    fallback: fallbackOf(designs),
  };
}

/**
 * When designs let what is live in the site's own language stand in; what the first of them says
 * counts for all time before.
 */
function fallbackOf({ first, later }: DesignsAhead): Interval[] {
  const all = [{ starts: BEGINNING, site: first }, ...later].flatMap(({ starts, site }) => {
    const { edition } = site.design;
    return edition ? [{ starts, isOn: edition.fallback }] : [];
  });
  return all.flatMap(({ starts, isOn }, i) =>
    isOn ? [{ from: i === 0 ? BEGINNING : starts, to: all[i + 1]?.starts ?? null }] : [],
  );
}

/** When a release brings a language in, or what stands in for its words. */
interface Arrival {
  at: Instant;
  of: 'language' | 'fallback';
}

/** When releases from an instant on bring the language of designs in, or change what stands in. */
export function arrivalsOf(
  connection: Connection,
  { first, later, language }: DesignsAhead,
  start: Instant,
): Arrival[] {
  const before = designsOf(connection).at(start - 1)?.site;
  const all = [
    { starts: 0, site: before ? siteIn(before, language!) : NO_SITE },
    { starts: start, site: first },
    ...later,
  ];
  return all.flatMap(({ starts: at, site }, i): Arrival[] => {
    const [was, is] = [all[i - 1]?.site.design.edition, site.design.edition];
    if (i === 0 || !is) return [];
    if (!was) return [{ at, of: 'language' }];
    return was.fallback === is.fallback ? [] : [{ at, of: 'fallback' }];
  });
}
