// The demo's pages, as they are measured: its real templates, with data at hand.
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { EntryView, Media } from '@/core/design/values.ts';
import { compileSite, type CompiledSite } from '@/core/site/compile.ts';
import type { ListingPlan } from '@/core/listing/plan.ts';
import type { SiteReader } from '@/core/site/reader.ts';
import { Validity, type Instant } from '@/core/time/interval.ts';
import { loadSite } from '@/server/commands/load-site.ts';
import { openDatabase } from '@/server/db/connection.ts';
import { readSite } from '@/server/files/read-site.ts';
import { COMMAND_LINE } from '@/server/permit.ts';
import { SiteView } from '@/server/queries/site-view.ts';

/** The pages that are measured: one with a text and cards, and a list of twenty cards. */
export const GUIDE = '/guides/2026/what-to-sow-when-the-ground-is-cold';
export const LIST = '/varieties';
const CARDS = 20;

/** The demo as it is measured. */
export interface Demo {
  site: CompiledSite;
  reader: SiteReader;
  view: SiteView;
  at: Instant;
}

/** Loads the demo's folder into a data folder of its own. */
export async function demo(folder: string): Promise<Demo> {
  const at = Date.now();
  const { site: read, issues } = await readSite(folder, at);
  if (!read) throw new Error(JSON.stringify(issues.slice(0, 5)));
  const data = mkdtempSync(join(tmpdir(), 'bontel-perf-'));
  const connection = openDatabase(join(data, 'site.db'));
  const loaded = loadSite(connection, data, COMMAND_LINE, read, at);
  if (!loaded.ok) throw new Error(JSON.stringify(loaded.issues.slice(0, 5)));
  const view = new SiteView(connection);
  const { site: released, reader } = view.at(at)!;
  const { listings, ...design } = released.design;
  // Cards alone: what visitors narrow it by, and its pages of single values, are measured apart.
  const twenty = listings.map(({ visitor, each, feed, ...list }) =>
    list.address === LIST
      ? { ...list, pageSize: CARDS }
      : { ...list, ...(visitor && { visitor }), ...(each && { each }), ...(feed && { feed }) },
  );
  return { site: compileSite({ ...design, listings: twenty }).site, reader, view, at };
}

/** A reader that gives the answers to the same questions again, in the order they came first. */
export function remembering(reader: SiteReader): { reader: SiteReader; again: () => void } {
  const answers: unknown[] = [];
  let next: number | null = null;
  const told = (of: SiteReader): SiteReader => {
    const answer =
      (name: keyof SiteReader) =>
      (...asked: never[]): unknown => {
        if (next !== null) return answers[next++];
        const given = (of[name] as (...args: never[]) => unknown).apply(of, asked);
        answers.push(name === 'in' ? told(given as SiteReader) : given);
        return answers.at(-1);
      };
    const names = Object.getOwnPropertyNames(Object.getPrototypeOf(of)) as (keyof SiteReader)[];
    return Object.fromEntries(names.map((name) => [name, answer(name)])) as unknown as SiteReader;
  };
  return { reader: told(reader), again: () => (next = 0) };
}

/** A page in one of the languages of the demo. */
export interface Spoken {
  language: string;
  label: string;
  path: string;
}

/** What a card shows. */
export interface CardData {
  title: string;
  path: string;
  summary: string;
  family: string;
  picture: Media;
  sowFrom: string;
  sowUntil: string;
}

/** What stands around every page. */
export interface FrameData {
  name: string;
  url: string;
  language: string;
  strapline: string;
  contact: string;
  letters: string;
  css: string;
  menu: { path: string; words: string }[];
  /** The month of the day, 1–12. */
  month: number;
}

/** What the page of a guide shows. */
export interface GuideData {
  path: string;
  title: string;
  summary: string;
  topic: string;
  /** ms UTC. */
  published: Instant;
  minutes: string;
  body: TextNode;
  cards: CardData[];
  next: { path: string; title: string };
  spoken: Spoken[];
}

/** A node of a rich text. */
export interface TextNode {
  type: string;
  text?: string;
  marks?: { type: string }[];
  attrs?: { level?: number; style?: string; values?: Record<string, string> };
  content?: TextNode[];
}

/** What a list shows. */
export interface ListData {
  title: string;
  intro: string;
  description: string;
  cards: CardData[];
  pages: number;
  spoken: Spoken[];
}

/** The values that the pages show, out of what a site has. */
export function dataOf(demo: Demo): { frame: FrameData; guide: GuideData; list: ListData } {
  const values = new Values(demo);
  return { frame: values.frame(), guide: values.guide(), list: values.list() };
}

const isMeasured = ({ key }: { key: string }): boolean => key === 'all-varieties';
const WORDS = ['Varieties', 'Sow now', 'Guides', 'Swap days', 'Growers', 'About'];

class Values {
  private readonly validity: Validity;

  constructor(private readonly demo: Demo) {
    this.validity = new Validity(demo.at);
  }

  frame(): FrameData {
    const { demo, validity } = this;
    const { name, url, language, strapline } = demo.site.design.site;
    const [own] = this.live(this.listed(demo.site.singles.get('settings')!, 1).ids);
    const about = demo.reader.currentPath('about', validity)!;
    const links = [LIST, '/sow-now', '/guides', '/swap-days', '/growers', about];
    return {
      ...{ name, url, language, strapline, css: demo.site.styleKey },
      contact: String(own!.values.contact),
      letters: (own!.values.letters as { to: string }).to,
      menu: links.map((path, i) => ({ path, words: WORDS[i]! })),
      month: new Date(demo.at).getMonth() + 1,
    };
  }

  guide(): GuideData {
    const { demo, validity } = this;
    const { reader, site } = demo;
    const [guide] = this.live([reader.holders(GUIDE, validity).current!.entry]);
    const { values, published, id } = guide!;
    const order = this.listed(site.listings.get('guides')!, 100).ids;
    // It is pinned: the others follow it.
    const [next] = this.live([order.find((other) => other !== id)!]);
    const german = reader.in(site.languages[1]!).currentPath(id, validity)!;
    return {
      ...(values as Pick<GuideData, 'title' | 'summary'>),
      ...{ path: GUIDE, published: published!, minutes: String(values.minutes) },
      topic: reader.subject('topics', String(values.topic), validity)!.name,
      body: this.keyed(values.body as TextNode),
      cards: this.live(values.varieties as string[]).map((entry) => this.card(entry)),
      next: { path: next!.path!, title: String(next!.values.title) },
      spoken: this.spoken(GUIDE, german),
    };
  }

  list(): ListData {
    const { ids, total } = this.listed(this.demo.site.listings.get('all-varieties')!, CARDS);
    return {
      title: 'All varieties',
      intro: 'Everything the library lends, from A to Z.',
      description: 'Every variety the library lends.',
      cards: this.live(ids).map((entry) => this.card(entry)),
      pages: Math.ceil(total / CARDS),
      spoken: this.spoken(
        LIST,
        this.demo.site.languages[1]!.design.listings.find(isMeasured)!.address!,
      ),
    };
  }

  private spoken(own: string, german: string): Spoken[] {
    return [
      { language: this.demo.site.design.site.language, label: 'English', path: own },
      { language: 'de', label: 'Deutsch', path: german },
    ];
  }

  private listed(plan: ListingPlan, limit: number): { ids: string[]; total: number } {
    return this.demo.reader.listing(plan, this.validity, 0, limit);
  }

  private live(ids: readonly string[]): EntryView[] {
    const found = this.demo.reader.liveEntries(ids, this.validity);
    return ids.flatMap((id) => found.get(id) ?? []);
  }

  private card({ values, path }: EntryView): CardData {
    const { reader } = this.demo;
    return {
      ...(values as Pick<CardData, 'title' | 'summary' | 'sowFrom' | 'sowUntil'>),
      path: path!,
      family: reader.subject('families', String(values.family), this.validity)!.name,
      picture: reader.media(String(values.picture), this.validity)!,
    };
  }

  /** A text with the keys of its styles. */
  private keyed(node: TextNode): TextNode {
    const { attrs, content, marks } = node;
    const style = this.demo.site.design.styles.find(({ id }) => id === attrs?.style);
    return {
      ...node,
      ...(style ? { attrs: { ...attrs, style: style.key } } : {}),
      ...(content ? { content: content.map((inner) => this.keyed(inner)) } : {}),
      ...(marks ? { marks: marks.map((mark) => this.keyed(mark as TextNode)) } : {}),
    };
  }
}
