import type { EntryView } from '../design/values.ts';
import { escapeHtml } from '../text.ts';
import type { Render, RenderScope } from './context.ts';

/**
 * Entries drawn as cards in a list; '' where there are none. `isLifted`: no heading stands between
 * the page's own and the list.
 */
export function cardList(
  entries: EntryView[],
  card: Render,
  needs: string[][],
  scope: RenderScope,
  isLifted = false,
): string {
  const [first] = entries;
  if (!first) return '';
  scope.prefetch(entries, needs);
  const each = scope.of(first); // one scope for all cards: each is drawn before the next is shown
  each.lifted = isLifted;
  let out = `<ul class="cards">${opening(first)}${card(each)}`;
  for (let i = 1; i < entries.length; i++) {
    each.own = entries[i]!;
    out += `</li>${opening(each.own)}${card(each)}`;
  }
  return `${out}</li></ul>`;
}

/** Says in which language an entry is, where that is not the page's. */
function opening({ language }: EntryView): string {
  return language === undefined ? '<li>' : `<li lang="${escapeHtml(language)}">`;
}
