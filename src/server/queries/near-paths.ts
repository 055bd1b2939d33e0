import { editDistance } from '@/core/did-you-mean.ts';
import { formatStyled } from '@/core/pattern/date-format.ts';
import { type Instant, Validity } from '@/core/time/interval.ts';
import type { CompiledSite } from '@/core/site/compile.ts';
import { listingPaths } from '@/core/site/pages.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { asOf } from '../store/as-of.ts';
import { tablesRead } from '../store/language-tables.ts';
import type { SiteView } from './site-view.ts';

/** An address that may have been meant by another. */
export interface NearPath {
  path: string;
  /** How it is near: "1 letter otherwise", "the same last part". */
  words: string;
}

/** So many letters may be otherwise; fewer in short paths. */
const FARTHEST = 3;
const SHOWN = 5;

/** A text that others are compared with, and which letters it has, as bits. */
interface Sketched {
  text: string;
  letters: number;
}

/** The live and the former addresses as of an instant, to find those that are near to others. */
export class NearPaths {
  private readonly live: Sketched[];
  /** Live addresses by their last part. */
  private readonly byEnd = new Map<string, string[]>();
  private readonly ends: Sketched[];
  private readonly ended: Map<string, Instant>;
  private readonly former: Sketched[];
  private readonly table: string;

  constructor(
    private readonly view: SiteView,
    { site, reader }: { site: CompiledSite; reader: SiteReader },
    private readonly at: Instant,
  ) {
    this.table = tablesRead(view.connection, site.design.edition?.id).address;
    const lists = listingPaths(site, reader, new Validity(at)).filter((p) => p.number === 1);
    const paths = [...lists.map(({ path }) => path), ...this.stored()];
    this.live = paths.map(sketched);
    for (const path of paths) {
      const end = endOf(path);
      const known = this.byEnd.get(end);
      if (known) known.push(path);
      else this.byEnd.set(end, [path]);
    }
    this.ends = [...this.byEnd.keys()].map(sketched);
    this.ended = this.formerly();
    this.former = [...this.ended.keys()].map(sketched);
  }

  /**
   * Those nearest to a path where nothing is: by letters, then those whose last part is alike; then
   * what was an address until some day.
   */
  to(path: string): NearPath[] {
    const farthest = Math.min(FARTHEST, Math.floor(path.length / 4));
    const byLetters = nearest(this.live, path, farthest).map(([near, distance]) => ({
      path: near,
      words: distance === 1 ? '1 letter otherwise' : `${distance} letters otherwise`,
    }));
    const known = new Set(byLetters.map((near) => near.path));
    const alike = this.endingAlike(endOf(path)).filter((other) => !known.has(other.path));
    const former = nearest(this.former, path, Math.min(farthest, 2)).map(([near]) => ({
      path: near,
      words: `an address until ${this.when(this.ended.get(near)!)}`,
    }));
    return [...byLetters, ...alike, ...former].slice(0, SHOWN);
  }

  /** Those whose last part is the same, or a letter or two otherwise. */
  private endingAlike(end: string): NearPath[] {
    if (end.length < 4) return [];
    const near = nearest(this.ends, end, Math.min(2, Math.floor(end.length / 4)));
    const paths = (name: string, words: string): NearPath[] =>
      (this.byEnd.get(name) ?? []).slice(0, SHOWN).map((path) => ({ path, words }));
    return [
      ...paths(end, 'the same last part'),
      ...near.flatMap(([other]) => paths(other, 'a last part like it')),
    ].slice(0, SHOWN);
  }

  private stored(): string[] {
    const sql = `SELECT path FROM ${this.table} WHERE role = 'current' AND ${asOf('', '@at')}`;
    const { driver } = this.view.connection;
    return driver.prepare<unknown[], string>(sql).pluck().all({ at: this.at });
  }

  /** What was an address and is none any more, with the instant at which it ended. */
  private formerly(): Map<string, Instant> {
    const sql = `SELECT path, max(ends) AS ended FROM ${this.table} AS a WHERE ends <= @at
      AND NOT EXISTS (SELECT 1 FROM ${this.table} AS n WHERE n.path = a.path AND ${asOf('n', '@at')})
      GROUP BY path`;
    const rows = this.view.connection.driver
      .prepare<unknown[], { path: string; ended: Instant }>(sql)
      .all({ at: this.at });
    return new Map(rows.map(({ path, ended }) => [path, ended]));
  }

  private when(ended: Instant): string {
    const { zone, language } = this.view.at(this.at)!.site.design.site;
    return formatStyled(ended, 'medium', language, zone);
  }
}

const endOf = (path: string): string => path.slice(path.lastIndexOf('/'));

function nearest(all: readonly Sketched[], wanted: string, farthest: number): [string, number][] {
  const { letters: own } = sketched(wanted);
  const found: [string, number][] = [];
  for (const { text, letters } of all) {
    if (Math.abs(text.length - wanted.length) > farthest) continue;
    // One letter otherwise takes one sort of letter away, and brings another, at most.
    if (bitsOf(own ^ letters) > 2 * farthest) continue;
    const distance = editDistance(wanted, text, farthest);
    if (distance > 0 && distance <= farthest) found.push([text, distance]);
  }
  return found.sort(([a, d], [b, e]) => d - e || (a < b ? -1 : 1)).slice(0, SHOWN);
}

function sketched(text: string): Sketched {
  let letters = 0;
  for (let i = 0; i < text.length; i++) letters |= 1 << (text.charCodeAt(i) & 31);
  return { text, letters };
}

/** How many bits of a number are set. */
function bitsOf(number: number): number {
  let n = number - ((number >>> 1) & 0x55555555);
  n = (n & 0x33333333) + ((n >>> 2) & 0x33333333);
  return (((n + (n >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}
