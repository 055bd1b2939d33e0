import { escapeHtml } from '../text.ts';

/** ` class="…"` with a block's own class and its style's; escaped. */
export function classes(...names: (string | false | undefined)[]): string {
  return ` class="${names
    .filter((n) => n !== undefined && n !== false && n !== '')
    .map((n) => escapeHtml(n as string))
    .join(' ')}"`;
}

/** An element with its content; '' where there is no content. */
export function element(tag: string, attributes: string, content: string): string {
  return content === '' ? '' : `<${tag}${attributes}>${content}</${tag}>`;
}
