import { ORDER_PARAMETER, SEARCH_PARAMETER } from '../../listing/visitors.ts';
import { escapeHtml } from '../../text.ts';
import type { VisitorFilter, VisitorOption, VisitorShown } from '../context.ts';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';
import type { PublicWords } from '../public-words/public-words.ts';
import { wordsOf } from '../words.ts';

/** How visitors of a listing's page narrow, search and order it. */
export const visitorControls = defineBlock({
  block: 'visitorControls',
  label: 'Narrow, search and order',
  doc: 'How visitors of a listing’s page narrow, search and order it; nothing where they may not.',
  scripted: true,
  spec: {},
  compile:
    ({ style }) =>
    (scope) => {
      const shown = scope.visitor();
      if (!shown) return '';
      const words = wordsOf(scope.language);
      const total = scope.shown?.total ?? 0;
      return `<form${classes('visitor', style)} action="${escapeHtml(shown.address)}" role="search" aria-label="${words.narrow}">${fieldsOf(shown, words)}<p class="found">${words.found(total)}${startOver(shown, words)}</p></form>`;
    },
  example: { block: { block: 'visitorControls' }, html: '' },
});

function fieldsOf(shown: VisitorShown, words: PublicWords): string {
  const filters = shown.filters.map((filter) => filterHtml(filter, words)).join('');
  return `${searchHtml(shown, words)}${filters}${ordersHtml(shown, words)}<button type="submit">${words.show}</button>`;
}

function searchHtml({ search }: VisitorShown, words: PublicWords): string {
  if (search === null) return '';
  return `<label class="search">${words.search} <input type="search" name="${SEARCH_PARAMETER}" value="${escapeHtml(search)}" maxlength="200"></label>`;
}

function filterHtml({ name, label, options }: VisitorFilter, words: PublicWords): string {
  if (options.length === 0) return '';
  const open = options.some(({ isChosen }) => isChosen) ? ' open' : '';
  const items = options.map((option) => optionHtml(name, option, words)).join('');
  return `<details${open}><summary>${escapeHtml(label)}</summary><ul>${items}</ul></details>`;
}

/** Names of several boxes end in brackets; addresses that are written have them or not. */
function optionHtml(
  name: string,
  { value, label, count, depth, isChosen }: VisitorOption,
  words: PublicWords,
): string {
  const text = label === '' ? words[value === 'yes' ? 'yes' : 'no'] : label;
  const inside = depth > 0 ? ` class="within-${Math.min(depth, 4)}"` : '';
  const box = `<input type="checkbox" name="${escapeHtml(name)}[]" value="${escapeHtml(value)}"${isChosen ? ' checked' : ''}>`;
  return `<li${inside}><label>${box} ${escapeHtml(text)} <span class="count">${count}</span></label></li>`;
}

function ordersHtml({ orders }: VisitorShown, words: PublicWords): string {
  if (orders.length === 0) return '';
  const options = orders.map(
    ({ value, label, isChosen }) =>
      `<option value="${escapeHtml(value)}"${isChosen ? ' selected' : ''}>${escapeHtml(label)}</option>`,
  );
  return `<label class="order">${words.order} <select name="${ORDER_PARAMETER}"><option value="">${words.usualOrder}</option>${options.join('')}</select></label>`;
}

/** Ways back: without one of the values that are wanted, and without any. */
function startOver({ filters, address, isPlain }: VisitorShown, words: PublicWords): string {
  if (isPlain) return '';
  const chosen = filters.flatMap((filter) => filter.chosen);
  const links = chosen.map(
    ({ label, without }) =>
      `<a href="${escapeHtml(without)}">${words.without} ${escapeHtml(label)}</a>`,
  );
  return [...links, `<a href="${escapeHtml(address)}">${words.showAll}</a>`]
    .map((link) => ` ${link}`)
    .join('');
}
