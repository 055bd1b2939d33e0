import { z } from 'zod';
import { defineBlock } from '../definition.ts';
import { WAYS, pageLinksHtml } from '../page-links.ts';

/** Links to a listing's other pages; nothing where there is one page. */
export const pageLinks = defineBlock({
  block: 'pageLinks',
  label: 'Page links',
  doc: 'Links to a listing’s other pages: numbered, earlier and later alone, or one that shows more; nothing where there is one page.',
  spec: {
    /** Numbered, the pages before and after alone, or "Show more". */
    as: z.enum(WAYS).default('numbers'),
  },
  compile:
    ({ as, style }) =>
    (scope) =>
      scope.shown ? pageLinksHtml(scope.shown, scope.language, { as, style }) : '',
  example: { block: { block: 'pageLinks', as: 'more' }, html: '' },
});
