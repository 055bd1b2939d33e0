import { escapeHtml } from '../text.ts';
import { headHtml, type PageMeta } from '../metadata/head.ts';
import { wordsOf } from '../template/words.ts';
import type { CompiledTemplate } from '../template/compile.ts';
import type { CompiledSite } from './compile.ts';
import type { PageScope } from './page-scope.ts';

/** Asks for the script with which pages do better; they do without, too. */
const SCRIPT = '<script type="module" src="/style/page.js"></script>';

type Scripted = Pick<CompiledTemplate, 'isScripted'>;

/** A whole HTML document: head, then the frame with the page's blocks in its slots. */
export function documentHtml(
  site: CompiledSite,
  scope: PageScope,
  meta: PageMeta,
  template: Pick<CompiledTemplate, 'render' | 'slots'> & Partial<Scripted>,
  frame: Pick<CompiledTemplate, 'render' | 'isScripted'> = site.templates.frame,
): string {
  const main = template.render(scope);
  const slots: Record<string, string> = { main };
  for (const [name, render] of Object.entries(template.slots)) slots[name] = render(scope);
  const body = frame.render(scope.frame(slots));
  return (
    `<!DOCTYPE html>\n<html lang="${escapeHtml(meta.language)}">\n<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">` +
    `${headHtml(meta)}<link rel="stylesheet" href="/style/${site.styleKey}.css">${template.isScripted || frame.isScripted ? SCRIPT : ''}</head>\n<body><a class="skip" href="#content">${escapeHtml(wordsOf(meta.language).skip)}</a>${body}</body>\n</html>\n`
  );
}
