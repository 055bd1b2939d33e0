import type { Media } from '../design/values.ts';
import { escapeHtml } from '../text.ts';
import type { DrawnPicture } from './context.ts';

/** The `img` of a picture; its class, and what is said on pointing at it, each with a space before. */
export function pictureHtml(
  picture: DrawnPicture,
  { styled = '', named = '' }: { styled?: string; named?: string } = {},
): string {
  const { src, srcset, sizes, alt, width, height, lazy } = picture;
  // Sizes of pictures are named by digits and hyphens; a whole file is named by people.
  const source = srcset === '' ? escapeHtml(src) : `${src}" srcset="${srcset}" sizes="${sizes}`;
  const loading = lazy ? ' loading="lazy"' : '';
  return `<img${styled} src="${source}" alt="${escapeHtml(alt)}"${named} width="${width}" height="${height}"${loading}>`;
}

/** What stands below a picture: its caption and who made it; '' where nothing is said of it. */
export function captionHtml({ caption, credit }: Pick<Media, 'caption' | 'credit'>): string {
  const words = [
    ...(caption === '' ? [] : [escapeHtml(caption)]),
    ...(credit === '' ? [] : [`<small class="credit">${escapeHtml(credit)}</small>`]),
  ];
  return words.length === 0 ? '' : `<figcaption>${words.join(' ')}</figcaption>`;
}
