import type { SiteView } from './site-view.ts';
import type { RenderedPage } from '@/core/site/render.ts';
import type { Instant } from '@/core/time/interval.ts';

/** A public file that may take long to make, such as a site map; null while no site is loaded. */
export function publicFile(view: SiteView, path: string, at: Instant): RenderedPage | null {
  return view.render(path, at);
}
