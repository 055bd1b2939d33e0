import { pagePath } from '../address/path.ts';
import type { ListingShown } from './context.ts';
import { escapeHtml } from '../text.ts';
import { wordsOf } from './words.ts';
import { classes } from './html.ts';

/** The page numbers to show links for: first, last and those near; null marks a gap. */
export function pageNumbers(number: number, count: number): (number | null)[] {
  const near = new Set(
    [1, count, number - 1, number, number + 1].filter((n) => n >= 1 && n <= count),
  );
  const sorted = [...near].sort((a, b) => a - b);
  return sorted.flatMap((n, i) => (i > 0 && n - sorted[i - 1]! > 1 ? [null, n] : [n]));
}

/** Links to a listing's pages; '' where there is one page, or the listing has no address. */
export function pageLinksHtml(
  { address, number, count, query }: ListingShown,
  language: string,
  style?: string,
): string {
  const words = wordsOf(language);
  if (address === null || count <= 1) return '';
  const more = query === '' ? '' : `?${escapeHtml(query)}`;
  const link = (n: number, words: string, rel: string): string =>
    `<li><a href="${pagePath(address, n)}${more}"${rel}>${words}</a></li>`;
  let out = number > 1 ? link(number - 1, words.previous, ' rel="prev"') : '';
  for (const n of pageNumbers(number, count)) {
    if (n === null) out += '<li class="gap">…</li>';
    else out += n === number ? link(n, String(n), ' aria-current="page"') : link(n, String(n), '');
  }
  if (number < count) out += link(number + 1, words.next, ' rel="next"');
  return `<nav${classes('page-links', style)} aria-label="${words.pages}"><ul>${out}</ul></nav>`;
}
