import type { Block } from '@/core/design/block.ts';
import type { BlockOffer } from '@/core/template/offers.ts';
import type { PanelControl } from '@/core/template/panel.ts';

/** Controls of what says nothing of what a block is about. */
const WORDLESS: readonly PanelControl[] = ['blocks', 'number', 'switch'];

/** What a block is called in an outline, and what it is about. */
export function blockWords(
  block: Block,
  offers: readonly BlockOffer[],
): { kind: string; words: string } {
  const offer = offers.find((one) => one.block === block.block);
  const about = offer?.panel.find(
    ({ control, name }) => !WORDLESS.includes(control) && name !== 'style' && block[name],
  );
  const value = about && block[about.name];
  const words = Array.isArray(value) ? value.join(', ') : typeof value === 'string' ? value : '';
  return { kind: offer?.label ?? block.block, words };
}

/** The words of what a block gives; of pictures alone their alternative texts. */
export function wordsOfHtml(html: string): string {
  const page = new DOMParser().parseFromString(html.replaceAll('><', '> <'), 'text/html');
  const words = (page.body.textContent ?? '').replace(/\s+/g, ' ').trim();
  if (words !== '') return words.length > 160 ? `${words.slice(0, 160)}…` : words;
  const alts = [...page.images].map((image) => image.alt || 'a picture');
  return alts.length > 0 ? `Picture: ${alts.join(', ')}` : 'An element without words';
}
