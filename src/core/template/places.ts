import type { Block } from '../design/block.ts';
import { otherSidesOf } from '../design/other-sides.ts';
import { kindOf } from '../design/kinds/index.ts';
import type { BlockCompiler, Render, RenderScope } from './context.ts';
import type { BlockKind } from './definition.ts';
import { pageFieldsOf } from './page-fields.ts';
import { nameOf } from '../design/values.ts';

/** What stands at a place of a page, for those who edit it there. */
export type Place =
  /**
   * A text of an entry, as it is; by the ids of the entry and the field. `language`: the id of the
   * further language it is said in.
   */
  | { of: 'text'; entry: string; field: string; language?: string }
  /**
   * Another field of an entry, drawn; by its key, as forms name it. `language`: the id of the further
   * language it is filled in.
   */
  | { of: 'field'; entry: string; key: string; language?: string }
  /** A card; where it stands in a listing, its key. */
  | { of: 'entry'; entry: string; name: string; listing?: string }
  /**
   * The entries of a listing, and of picks, by key; `type` is theirs, by key. `on`: the page's entry
   * that the listing compares with, `each`: the key of the value that the page is of, where it has
   * one for each.
   */
  | { of: 'listing'; listing: string; type: string; on?: string; each?: string }
  | { of: 'picks'; picks: string }
  /** The entries of a type that lead to one by a field of theirs. */
  | { of: 'leading'; entry: string; field: string; type: string };

/**
 * Draws between comments that say what stands there; nothing where nothing is drawn, and none within
 * parts of texts, which are edited in those.
 */
export function placed(place: (scope: RenderScope) => Place | null, render: Render): Render {
  return (scope) => {
    const here = scope.own?.isPart ? null : place(scope);
    const html = render(scope);
    if (html === '' || !here) return html;
    // An id stands in a comment as that takes it (WHATWG HTML, 13.1.6).
    const name = encodeURIComponent(JSON.stringify(here)).replaceAll('-', '%2D');
    return `<!--place ${name}-->${html}<!--/place-->`;
  };
}

/** The place of a card. */
export const cardPlace = ({ own }: RenderScope): Place | null =>
  own && { of: 'entry', entry: own.id, name: nameOf(own) };

/** What stands where a block is drawn; null for what is not edited there. */
export function placeOf(
  block: Block,
  { holds }: BlockKind,
  c: BlockCompiler,
): ((scope: RenderScope) => Place | null) | null {
  if (block.block === 'listing') return listing(String(block['listing']), c);
  if (block.block === 'picks') return () => ({ of: 'picks', picks: String(block['picks']) });
  const text = /^\{(\w+)\}$/u.exec(String(block['text'] ?? ''))?.[1];
  if (text !== undefined && holds['text'] === 'pattern') return ownField(text, c, true);
  if (typeof block['field'] !== 'string' || holds['field'] !== 'field') return null;
  return ownField(block['field'], c, false) ?? leadingTo(block['field'], c);
}

function listing(key: string, { design }: BlockCompiler): ((scope: RenderScope) => Place) | null {
  const found = design.listings.find((l) => l.key === key);
  if (!found) return null;
  const compares = pageFieldsOf(found).length > 0;
  return ({ own, shown }) => ({
    ...{ of: 'listing', listing: key, type: found.type },
    ...(compares && own ? { on: own.id } : {}),
    ...(shown?.key === key && shown.value ? { each: shown.value.key } : {}),
  });
}

/**
 * A field of the page's own entry; of texts those that are written as they are shown. Where the
 * site's own words stand in for those of a further language, a text is a field to be filled in.
 */
function ownField(
  key: string,
  { type, design }: BlockCompiler,
  isText: boolean,
): ((scope: RenderScope) => Place | null) | null {
  const field = type?.fields.find((f) => f.key === key);
  if (!field || (isText && (field.many || !PLAIN.includes(kindOf(field).kind)))) return null;
  const { id, translated } = field;
  const { edition } = design;
  const spoken = edition && translated ? { language: edition.id } : {};
  return ({ own }) => {
    if (!own) return null;
    const isStandIn = translated && own.language !== undefined;
    if (isText && !isStandIn) return { of: 'text', entry: own.id, field: id, ...spoken };
    return { of: 'field', entry: own.id, key, ...spoken };
  };
}

const PLAIN = ['text', 'paragraphs'];

function leadingTo(
  name: string,
  { type, design }: BlockCompiler,
): ((scope: RenderScope) => Place | null) | null {
  const side = type && otherSidesOf(type, design).find((s) => s.name === name);
  if (!side) return null;
  const [field, from] = [side.field.id, side.type.key];
  return ({ own }) => own && { of: 'leading', entry: own.id, field, type: from };
}
