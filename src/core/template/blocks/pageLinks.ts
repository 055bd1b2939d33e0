import type { CompileBlock } from '../context.ts';
import { pageLinksHtml } from '../page-links.ts';

/** Links to a listing's other pages; nothing where there is one page. */
export const pageLinks: CompileBlock<'pageLinks'> =
  ({ style }) =>
  (scope) =>
    scope.shown ? pageLinksHtml(scope.shown, scope.language, style) : '';
