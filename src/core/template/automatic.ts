import type { Block } from '../design/block-spec.ts';
import type { Listing } from '../design/listing-spec.ts';
import type { ContentType, Field } from '../design/spec.ts';

const SHEET_KINDS = new Set<Field['kind']>([
  'text',
  'number',
  'yesno',
  'date',
  'datetime',
  'choice',
  'reference',
  'category',
  'tags',
  'paragraphs',
]);

/** The blocks of a page made from a type's fields alone, where no template is bound. */
export function automaticPage(type: ContentType): Block[] {
  const rest = type.fields.filter((f) => f.key !== type.naming && f.key !== type.summary);
  const sheet = rest.filter((f) => SHEET_KINDS.has(f.kind)).map((f) => f.key);
  return [
    { block: 'heading', text: `{${type.naming}}`, level: 1, link: false },
    ...summaryBlock(type),
    ...rest.flatMap((f): Block[] =>
      f.kind === 'media' ? [{ block: 'picture', field: f.key, width: 800 }] : [],
    ),
    ...(sheet.length > 0 ? [{ block: 'fieldSheet' as const, fields: sheet }] : []),
    ...rest.flatMap((f): Block[] =>
      f.kind === 'richtext' ? [{ block: 'richText', field: f.key }] : [],
    ),
  ];
}

/** The blocks of a card where none is bound. */
export function automaticCard(type: ContentType): Block[] {
  return [
    { block: 'heading', text: `{${type.naming}}`, level: 3, link: true },
    ...summaryBlock(type),
  ];
}

/** The blocks of a listing's own pages where no template is bound. */
export function automaticListing(listing: Listing): Block[] {
  return [
    { block: 'heading', text: escapePattern(listing.label), level: 1, link: false },
    ...(listing.intro === undefined
      ? []
      : [{ block: 'text' as const, text: listing.intro, style: 'intro' }]),
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
        summary.kind === 'richtext' ? `{limit(plain(${summary.key}), 155)}` : `{${summary.key}}`,
      style: 'summary',
    },
  ];
}

/** Text as a pattern that gives it back. */
export function escapePattern(text: string): string {
  return text.replace(/[{}[\]]/g, (c) => c + c);
}
