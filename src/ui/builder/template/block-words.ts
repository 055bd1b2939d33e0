import type { Block } from '@/core/design/block.ts';
import type { PanelControl } from '@/core/template/panel.ts';
import type { TemplateDetail } from '@/server/queries/template.ts';

/** Controls of what says nothing of what a block is about. */
const WORDLESS: readonly PanelControl[] = ['blocks', 'number', 'switch'];

/** What names what blocks speak of. */
type Named = Pick<TemplateDetail, 'offers' | 'names' | 'listings' | 'picks' | 'menus'>;

/** What a block is called in an outline, and what it is about. */
export function blockWords(
  block: Block,
  { offers, names, ...of }: Named,
): { kind: string; words: string } {
  const offer = offers.find((one) => one.block === block.block);
  const about = offer?.panel.find(
    ({ control, name }) => !WORDLESS.includes(control) && name !== 'style' && block[name],
  );
  const given = about && block[about.name];
  const parts = { listing: of.listings, picks: of.picks, template: of.menus };
  const list = parts[about?.control as keyof typeof parts] ?? [];
  const part = list.find(({ key }) => key === given)?.label;
  const value = part ?? (about?.control === 'entry' ? names[String(given)] : undefined) ?? given;
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
