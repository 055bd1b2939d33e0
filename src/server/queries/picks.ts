import type { ContentType, Design, Picks } from '@/core/design/spec.ts';
import { blocksWithin } from '@/core/design/block-ids.ts';
import { removalOf } from '@/core/design-edit/removal.ts';
import type { Step } from '@/core/design-edit/steps.ts';
import { PageScope } from '@/core/site/page-scope.ts';
import { cardList } from '@/core/template/card-list.ts';
import type { Render } from '@/core/template/context.ts';
import { BEGINNING, type Instant, Validity, covers } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { type Pick, picksOfEntry, sinceWhen } from '../store/picks.ts';
import { statement } from '../store/statement.ts';
import { sentencesAbout } from './bench.ts';
import type { Looking } from './clock.ts';
import type { SiteAt, SiteView } from './site-view.ts';

/** A stretch over which an entry stands in picks. */
export interface PickStretch {
  id: number;
  /** ms UTC; null for from the beginning. */
  from: Instant | null;
  /** ms UTC; null for no end. */
  to: Instant | null;
  /** Whether it stands there as of the clock. */
  isIn: boolean;
}

/** An entry of picks, as a line of theirs. */
export interface PickLine extends PickStretch {
  entry: string;
  name: string;
  type: string;
  isLive: boolean;
  isDeleted: boolean;
}

/** Picks with who stands in them, and where they are used. */
export interface PicksDetail {
  spec: Picks;
  /** The first of them in their order, those that join later among them. */
  lines: PickLine[];
  total: number;
  /** The id of the first that does not stand on the screen; null where all do. */
  beyond: number | null;
  /** Those that are shown, as cards; null where none is. */
  cards: string | null;
  /** Types of which there can be a new one for them. */
  types: { key: string; label: string; description: string }[];
  /** Types whose new entries join them, and templates that show them. */
  uses: { label: string; type: string | null }[];
  /** What takes them away. */
  removal: Step;
  /** What the bench holds of them, a sentence each. */
  onBench: string[];
}

/** So many stand on a screen. */
const MOST = 500;
const MOST_CARDS = 24;

type Row = Omit<PickLine, 'isIn' | 'isLive' | 'isDeleted' | 'from'> & {
  from: Instant;
  live: number;
  deleted: Instant | null;
  position: number;
};

/** Picks of the working design, as of an instant; null where there are none of the key. */
export function picksDetail(
  view: SiteView,
  actor: Actor,
  key: string,
  { at, past }: Looking,
): PicksDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const current = view.editable(at, past);
  const design = current?.site.design;
  const spec = design?.picks.find((p) => p.key === key);
  if (!design || !spec) return null;
  const among = `FROM pick AS p WHERE p.picks = @picks AND (p.ends IS NULL OR p.ends > @at)${past ? ' AND p.starts <= @at' : ''}`;
  const rows = statement<Row>(
    view.connection,
    `SELECT p.id, p.entry, p.starts AS "from", p.ends AS "to", p.position, e.type, e.deleted,
       (SELECT name FROM revision WHERE entry = p.entry ORDER BY number DESC LIMIT 1) AS name,
       EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = p.entry AND ${asOf('l', '@at')}) AS live
     ${among.replace(' WHERE', ' JOIN entry AS e ON e.id = p.entry WHERE')}
     ORDER BY p.position, p.id LIMIT ${MOST + 1}`,
  ).all({ picks: spec.id, at });
  const beyond = rows.splice(MOST)[0]?.id ?? null;
  const labels = new Map(design.types.map(({ id, label }) => [id, label]));
  return {
    spec,
    lines: rows.map(({ live, deleted, type, ...row }) => ({
      ...{ entry: row.entry, name: row.name },
      ...stretchOf(view, { ...row, picks: spec.id }, at),
      type: labels.get(type) ?? type,
      isLive: live === 1,
      isDeleted: deleted !== null && deleted <= at,
    })),
    total: statement<number>(view.connection, `SELECT count(*) ${among}`)
      .pluck()
      .get({ picks: spec.id, at })!,
    cards: cardsOf(current!, key, at),
    ...{ beyond, uses: usesOf(design, key), types: past ? [] : writable(view, at) },
    removal: removalOf(design, `picks/${spec.id}`),
    onBench: past ? [] : sentencesAbout(view, `picks/${spec.id}`, at),
  };
}

/** Types of what is released that have more than one entry. */
function writable(view: SiteView, at: Instant): PicksDetail['types'] {
  const types = view.at(at)?.site.design.types ?? [];
  return types
    .filter(({ single }) => !single)
    .map(({ key, label, description }) => ({ key, label, description }));
}

/** Those that are live as of an instant as cards; null where none is. */
function cardsOf({ site, reader }: SiteAt, key: string, at: Instant): string | null {
  const scope = new PageScope(site, reader, new Validity(at));
  const card: Render = (s) => site.templates.cards.get(s.own!.type.key)!.render(s);
  return cardList(scope.picked(key, MOST_CARDS), card, [], scope) || null;
}

function stretchOf({ connection }: SiteView, pick: Pick, at: Instant): PickStretch {
  const { id, to } = pick;
  const from = sinceWhen(connection, pick);
  return { id, from: from === BEGINNING ? null : from, to, isIn: covers(pick, at) };
}

function usesOf({ types, templates }: Design, key: string): PicksDetail['uses'] {
  return [
    ...types
      .filter(({ presets }) => presets.picks?.includes(key))
      .map((type) => ({ label: `New entries of ${type.label} join them`, type: type.key })),
    ...templates
      .filter(({ blocks, slots }) =>
        [...blocksWithin([blocks, slots])].some((b) => b.block === 'picks' && b.picks === key),
      )
      .map(({ label }) => ({ label: `The template ${label} shows them`, type: null })),
  ];
}

/** All picks of a list, as a line of it. */
export interface PicksLine {
  id: string;
  key: string;
  label: string;
  description: string;
  /** How many stand in them as of the clock. */
  count: number;
}

/** All picks of the working design, with how many stand in them as of an instant. */
export function picksList(view: SiteView, actor: Actor, { at, past }: Looking): PicksLine[] {
  permit(actor, 'read-unpublished', SITE);
  const count = statement<number>(
    view.connection,
    `SELECT count(*) FROM pick WHERE picks = ? AND ${asOf('')}`,
  ).pluck();
  return (view.editable(at, past)?.site.design.picks ?? []).map(
    ({ id, key, label, description }) => ({
      ...{ id, key, label, description },
      count: count.get(id, at, at)!,
    }),
  );
}

/** In which picks an entry stands, or will: of all picks there are. */
export interface EntryPicks {
  picks: { id: string; key: string; label: string };
  /** Whether new entries of its type join them. */
  isPreset: boolean;
  stretches: PickStretch[];
}

/** All picks of the working design, each with when an entry stands in them from an instant on. */
export function entryPicks(
  view: SiteView,
  { id: entry, type }: { id: string | null; type: ContentType },
  { at, past }: Omit<Looking, 'seeing'>,
): EntryPicks[] {
  const stretches = entry === null ? [] : picksOfEntry(view.connection, entry, at);
  return (view.editable(at, past)?.site.design.picks ?? []).map(({ id, key, label }) => ({
    picks: { id, key, label },
    isPreset: type.presets.picks?.includes(key) ?? false,
    stretches: stretches
      .filter(({ picks, from }) => picks === id && (!past || from <= at))
      .map((stretch) => stretchOf(view, stretch, at)),
  }));
}
