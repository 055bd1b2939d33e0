import { examplesHtml } from '../template/examples.ts';
import { type Instant, Validity } from '../time/interval.ts';
import type { CompiledSite } from './compile.ts';
import { documentHtml } from './document.ts';
import { frontMeta } from './meta.ts';
import { PageScope } from './page-scope.ts';
import type { SiteReader } from './reader.ts';

/** A page of examples of all that a style can form, in the site's frame; it is nowhere public. */
export function examplesPage(site: CompiledSite, reader: SiteReader, at: Instant): string {
  const scope = new PageScope(site, reader, new Validity(at));
  const html = examplesHtml(site.design);
  return documentHtml(site, scope, frontMeta(site, scope), { render: () => html, slots: {} });
}
