import type { Block } from '../design/block.ts';
import type { Field } from '../design/field.ts';
import { valueKindOf } from '../design/field-values.ts';
import { kindOf } from '../design/kinds/index.ts';
import type { Listing } from '../design/listing-spec.ts';
import type { ContentType, Design } from '../design/spec.ts';
import { quoted } from '../pattern/print.ts';
import { AUTOMATIC_MENU } from './tree-compiler.ts';

/** So many listings stand in the menu of a site that has no frame of its own. */
const MOST_IN_MENU = 7;

/** Around every page of a site that has no frame of its own: its name, its listings, its line. */
export const automaticFrame = (root: string): Block[] => [
  {
    block: 'group',
    as: 'header',
    style: 'site-header',
    blocks: [
      { block: 'link', to: root, text: '{site.name}' },
      { block: 'menu', menu: AUTOMATIC_MENU },
    ],
  },
  { block: 'slot', slot: 'main' },
  {
    block: 'group',
    as: 'footer',
    style: 'site-footer',
    blocks: [{ block: 'text', text: '{site.strapline}' }],
  },
];

/** Its menu: the listings that have an address and are to be found. */
export function automaticMenu({ listings }: Design): Block[] {
  return listings
    .filter(({ address, seo }) => address !== undefined && seo.index !== false)
    .slice(0, MOST_IN_MENU)
    .map(({ key }) => ({ block: 'menuListing', listing: key }));
}

/** The blocks of a page made from a type's fields alone, where no template is bound. */
export function automaticPage(type: ContentType): Block[] {
  const rest = type.fields.filter((f) => f.key !== type.naming && f.key !== type.summary);
  const shownAs = (where: 'sheet' | 'picture' | 'body' | 'items'): Field[] =>
    rest.filter((f) => kindOf(f).automatic === where);
  const sheet = shownAs('sheet').map((f) => f.key);
  return [
    { block: 'heading', text: `{${type.naming}}`, level: 1 },
    { block: 'byline' },
    ...summaryBlock(type),
    ...beside(
      shownAs('picture').map((f) => ({ block: 'picture', field: f.key })),
      sheet.length > 0 ? [{ block: 'fieldSheet', fields: sheet }] : [],
    ),
    ...shownAs('items').map((f) => ({ block: 'items', field: f.key, heading: f.label })),
    ...shownAs('body').map((f) => ({ block: 'richText', field: f.key })),
  ];
}

/** Blocks beside others; one after the other where there are none of either. */
function beside(left: Block[], right: Block[]): Block[] {
  if (left.length === 0 || right.length === 0) return [...left, ...right];
  return [{ block: 'columns', columns: [left, right] }];
}

/** The blocks of a card where none is bound. */
export function automaticCard(type: ContentType): Block[] {
  const picture = type.fields.find((f) => kindOf(f).automatic === 'picture');
  return [
    ...(picture ? [{ block: 'picture', field: picture.key, width: 320, ratio: '4:3' }] : []),
    cardHeading(type),
    ...summaryBlock(type),
  ];
}

const cardHeading = ({ naming }: ContentType): Block => ({
  block: 'heading',
  text: `{${naming}}`,
  level: 3,
  link: true,
});

/** Ways in which a card can begin. */
export const CARD_SHAPES = ['packet', 'line', 'row'] as const;
/** A packet with its picture, one line, or a row as of a table. */
export type CardShape = (typeof CARD_SHAPES)[number];

/** How many fields stand beside the name, by the shape. */
const BESIDE: Record<CardShape, number> = { packet: 0, line: 1, row: 3 };

/** The blocks that a new card of a shape begins with. */
export function cardOf(type: ContentType, shape: CardShape): Block[] {
  if (shape === 'packet') return automaticCard(type);
  const rest = type.fields.filter((f) => f.key !== type.naming && f.key !== type.summary);
  const beside = rest.filter((f) => kindOf(f).automatic === 'sheet').slice(0, BESIDE[shape]);
  const texts = beside.map(({ key }): Block => ({ block: 'text', text: `{${key}}` }));
  return [{ block: 'group', style: `card-${shape}`, blocks: [cardHeading(type), ...texts] }];
}

/** The blocks of a part of a text where its type has no card: all that it holds. */
export function automaticPart(type: ContentType): Block[] {
  const rest = automaticPage(type).filter(({ block }) => block !== 'byline');
  return [{ ...rest[0]!, level: 3 }, ...rest.slice(1)];
}

/** The blocks of a listing's own pages where no template is bound. */
export function automaticListing(listing: Listing): Block[] {
  const { key, each, label, intro, visitor } = listing;
  const list: Block[] = [
    ...(visitor ? [{ block: 'visitorControls' }] : []),
    { block: 'listing', listing: key },
    { block: 'pageLinks' },
  ];
  const words = escapePattern(label);
  if (!each) return [{ block: 'heading', text: words, level: 1 }, ...introduction(intro), ...list];
  return [
    { block: 'heading', text: `{value ?? ${quoted(label)}}`, level: 1 },
    {
      block: 'condition',
      page: OWN,
      blocks: [...introduction(intro), { block: 'values', listing: key }],
      otherwise: [
        ...introduction(each.intro ?? '{value.description}'),
        { block: 'values', listing: key },
      ],
    },
    ...(each.index === 'entries' ? list : [{ block: 'condition', page: PAGED, blocks: list }]),
  ];
}

/** A listing's own first page. */
const OWN = ['listing', 'front'];
/** Pages on which entries are, where a listing's own leads to those of its values. */
const PAGED = ['value', 'further'];

function introduction(text: string | undefined): Block[] {
  return text === undefined ? [] : [{ block: 'text', text, style: 'intro' }];
}

function summaryBlock(type: ContentType): Block[] {
  const summary = type.fields.find((f) => f.key === type.summary);
  if (!summary) return [];
  return [
    {
      block: 'text',
      text:
        valueKindOf(summary) === 'richtext'
          ? `{limit(plain(${summary.key}), 155)}`
          : `{${summary.key}}`,
      style: 'summary',
    },
  ];
}

/** Text as a pattern that gives it back. */
export function escapePattern(text: string): string {
  return text.replace(/[{}[\]]/g, (c) => c + c);
}
