import { CsvError, parse } from 'csv-parse/sync';
import {
  type PlannedRedirects,
  type RedirectLine,
  planRedirects,
} from '@/core/design-edit/redirect-lines.ts';
import { resolvePath } from '@/core/site/resolve.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import type { SiteView } from './site-view.ts';

/** What redirects would come to, or why what was given says none. */
export type RedirectTrial = PlannedRedirects | { problem: string };

const MOST = 1000;

/**
 * What becomes of redirects that are wanted, given one by one or as CSV with a head line that
 * names `from`, `to` and, where wanted, `status` and `below` (yes or no): nothing is changed by it.
 */
export function redirectLines(
  view: SiteView,
  actor: Actor,
  given: { lines: readonly RedirectLine[] } | { csv: string },
  at: Instant,
): RedirectTrial {
  permit(actor, 'change-design', SITE);
  const current = view.editable(at, false)?.site;
  const public_ = view.at(at);
  if (!current || !public_) return { problem: 'There is no site yet.' };
  const read = 'csv' in given ? readCsv(given.csv) : { lines: given.lines };
  if ('problem' in read) return read;
  if (read.lines.length > MOST)
    return {
      problem: `At most ${MOST} redirects are set at once, and these are ${read.lines.length}.`,
    };
  return planRedirects(current.design, read.lines, (path) => {
    const found = resolvePath(public_.site, public_.reader, path, new Validity(at));
    if (found.kind === 'entry') return `“${public_.reader.nameOf(found.entry) ?? found.entry}”`;
    return found.kind === 'listing' || found.kind === 'front' ? 'A list' : null;
  });
}

function readCsv(text: string): { lines: RedirectLine[] } | { problem: string } {
  try {
    const rows: Record<string, string>[] = parse(text, {
      ...{ bom: true, trim: true, skip_empty_lines: true, relax_column_count: true },
      columns: (names: string[]) => names.map((name) => name.toLowerCase()),
    });
    const names = Object.keys(rows[0] ?? {});
    if (rows.length > 0 && (!names.includes('from') || !names.includes('to')))
      return { problem: 'The first line names the columns: from,to,status,below.' };
    return { lines: rows.map(lineOf) };
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    return { problem: `This is no CSV: ${error.message}` };
  }
}

function lineOf({
  from = '',
  to = '',
  status = '',
  below = '',
}: Record<string, string>): RedirectLine {
  return {
    ...{ from, to },
    ...(status === '' ? {} : { status: Number(status) }),
    ...(/^(yes|true|1)$/i.test(below) ? { prefix: true } : {}),
  };
}
