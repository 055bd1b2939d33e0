import { z } from 'zod';
import { blockShape } from '../design/block.ts';
import { escapeHtml } from '../text.ts';
import type { Render, RenderScope } from './context.ts';

/** Items of a menu below another one. */
export const below = z.array(blockShape).default([]).meta({ title: 'Below it' });

/** Where an item leads, and how it reads; escaped words. Null where there is nothing to lead to. */
export type ItemLink = (scope: RenderScope) => { href: string; words: string } | null;

/** An item that leads somewhere, with those below it; left out, with them, where it does not. */
export function menuItem(link: ItemLink, inner: Render): Render {
  return (scope) => {
    const found = link(scope);
    return found ? itemHtml(found.href, found.words, inner(scope), scope) : '';
  };
}

/** An item: the page at hand is marked, and what it stands below. */
export function itemHtml(href: string, words: string, inner: string, scope: RenderScope): string {
  const { path } = scope.page;
  const isHere = path === href;
  const isAbove = !isHere && href !== scope.root && (path?.startsWith(`${href}/`) ?? false);
  const here = isHere ? ' aria-current="page"' : isAbove ? ' class="above"' : '';
  return `<li><a href="${escapeHtml(href)}"${here}>${words}</a>${listHtml(inner)}</li>`;
}

/** Items as a list; '' where there are none. */
export function listHtml(items: string): string {
  return items === '' ? '' : `<ul>${items}</ul>`;
}
