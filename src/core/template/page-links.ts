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

/** Ways in which a listing's pages lead to each other. */
export const WAYS = ['numbers', 'beside', 'more'] as const;

/** How page links are drawn. */
interface Drawn {
  as?: (typeof WAYS)[number];
  style?: string | undefined;
}

/** Links to a listing's pages; '' where there is one page, or the listing has no address. */
export function pageLinksHtml(
  { address, number, count, query }: ListingShown,
  language: string,
  { as = 'numbers', style }: Drawn = {},
): string {
  const words = wordsOf(language);
  if (address === null || count <= 1) return '';
  const more = query === '' ? '' : `?${escapeHtml(query)}`;
  const link = (n: number, words: string, rel: string): string =>
    `<li><a href="${pagePath(address, n)}${more}"${rel}>${words}</a></li>`;
  let out = number > 1 ? link(number - 1, words.previous, ' rel="prev"') : '';
  if (as === 'numbers') out += numbers(number, count, link);
  if (number < count)
    out += link(number + 1, as === 'more' ? words.showMore : words.next, ' rel="next"');
  return `<nav${classes('page-links', style)} aria-label="${words.pages}"><ul>${out}</ul></nav>`;
}

function numbers(
  number: number,
  count: number,
  link: (n: number, words: string, rel: string) => string,
): string {
  return pageNumbers(number, count)
    .map((n) => {
      if (n === null) return '<li class="gap">…</li>';
      return link(n, String(n), n === number ? ' aria-current="page"' : '');
    })
    .join('');
}
