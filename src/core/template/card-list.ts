import type { EntryView } from '../design/values.ts';
import type { Render, RenderScope } from './context.ts';

/** Entries drawn as cards in a list; '' where there are none. */
export function cardList(entries: EntryView[], card: Render, needs: string[][], scope: RenderScope): string {
  if (entries.length === 0) return '';
  scope.prefetch(entries, needs);
  let out = '<ul class="cards">';
  for (const entry of entries) out += `<li>${card(scope.of(entry))}</li>`;
  return `${out}</ul>`;
}
