import type { Block } from '../design/block.ts';
import type { Field } from '../design/field.ts';
import { valueKindOf } from '../design/field-values.ts';
import { kindOf } from '../design/kinds/index.ts';
import type { Listing } from '../design/listing-spec.ts';
import type { ContentType } from '../design/spec.ts';

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
    ...shownAs('picture').map((f) => ({ block: 'picture', field: f.key })),
    ...(sheet.length > 0 ? [{ block: 'fieldSheet', fields: sheet }] : []),
    ...shownAs('items').map((f) => ({ block: 'items', field: f.key, heading: f.label })),
    ...shownAs('body').map((f) => ({ block: 'richText', field: f.key })),
  ];
}

/** The blocks of a card where none is bound. */
export function automaticCard(type: ContentType): Block[] {
  return [
    { block: 'heading', text: `{${type.naming}}`, level: 3, link: true },
    ...summaryBlock(type),
  ];
}

/** Ways in which a card can begin. */
export const CARD_SHAPES = ['packet', 'line', 'row'] as const;
/** A packet with its picture, one line, or a row as of a table. */
export type CardShape = (typeof CARD_SHAPES)[number];

/** How many fields stand beside the name, by the shape. */
const BESIDE: Record<CardShape, number> = { packet: 0, line: 1, row: 3 };

/** The blocks that a new card of a shape begins with. */
export function cardOf(type: ContentType, shape: CardShape): Block[] {
  const plain = automaticCard(type);
  const rest = type.fields.filter((f) => f.key !== type.naming && f.key !== type.summary);
  if (shape === 'packet') {
    const picture = rest.find((f) => kindOf(f).automatic === 'picture');
    const shown: Block[] = picture
      ? [{ block: 'picture', field: picture.key, width: 280, ratio: '4:3' }]
      : [];
    return [...shown, ...plain];
  }
  const beside = rest.filter((f) => kindOf(f).automatic === 'sheet').slice(0, BESIDE[shape]);
  const texts = beside.map(({ key }): Block => ({ block: 'text', text: `{${key}}` }));
  return [{ block: 'group', style: `card-${shape}`, blocks: [plain[0]!, ...texts] }];
}

/** The blocks of a part of a text where its type has no card: all that it holds. */
export function automaticPart(type: ContentType): Block[] {
  const rest = automaticPage(type).filter(({ block }) => block !== 'byline');
  return [{ ...rest[0]!, level: 3 }, ...rest.slice(1)];
}

/** The blocks of a listing's own pages where no template is bound. */
export function automaticListing(listing: Listing): Block[] {
  return [
    { block: 'heading', text: escapePattern(listing.label), level: 1 },
    ...(listing.intro === undefined
      ? []
      : [{ block: 'text', text: listing.intro, style: 'intro' }]),
    { block: 'listing', listing: listing.key },
    { block: 'pageLinks' },
  ];
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
