import { defineBlock } from '../definition.ts';
import { pageLinksHtml } from '../page-links.ts';

/** Links to a listing's other pages; nothing where there is one page. */
export const pageLinks = defineBlock({
  block: 'pageLinks',
  label: 'Page links',
  doc: 'Links to a listing’s other pages; nothing where there is one page.',
  spec: {},
  compile:
    ({ style }) =>
    (scope) =>
      scope.shown ? pageLinksHtml(scope.shown, scope.language, style) : '',
  example: { block: { block: 'pageLinks' }, html: '' },
});
