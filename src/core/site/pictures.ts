import { MEDIA_FORMATS, isPicture } from '../design/media-formats.ts';
import type { Media } from '../design/values.ts';
import type { DrawnPicture, PictureWish, RatioName } from '../template/context.ts';

/** Widths in px that pictures are made in; a wanted width takes the next one up. */
export const PICTURE_WIDTHS = [160, 320, 480, 640, 800, 1200, 1600, 2400];

/** The width step that covers so many px. */
function stepFor(width: number): number {
  return PICTURE_WIDTHS.find((w) => w >= width) ?? PICTURE_WIDTHS.at(-1)!;
}

/** What the name of a size says after its width (px): how it is cut, and around what; '' if not. */
function cutName(media: Media, ratio: RatioName | undefined): string {
  return ratio === undefined ? '' : `-${ratio.replace(':', 'x')}-${media.focusX}-${media.focusY}`;
}

/** Path of a picture at the width step that covers `width` px, cut to a shape where one is given. */
export function picturePath(media: Media, width: number, ratio?: RatioName): string {
  return `/media/${media.hash}/${stepFor(width)}${cutName(media, ratio)}`;
}

/** Path that leads to what a name stands for now; to that picture at a width (px) where one is given. */
export function stablePath(id: string, width?: number): string {
  const path = `/media/${id.split('/').map(encodeURIComponent).join('/')}`;
  return width === undefined ? path : `${path}?width=${width}`;
}

/** Path of a whole file, under the last part of its name; what stands there never changes. */
export function filePath({ hash, id }: Pick<Media, 'hash' | 'id'>): string {
  return `/media/${hash}/${encodeURIComponent(id.slice(id.lastIndexOf('/') + 1))}`;
}

/** Path of a picture at a width (px); of a drawing, and of what is no picture, the whole file. */
export function imagePath(media: Media, width: number): string {
  const isWhole = !isPicture(media) || media.mime === MEDIA_FORMATS.svg.mime;
  return isWhole ? filePath(media) : picturePath(media, width);
}

/** A shape as a number: width by height. */
export function shapeOf(ratio: RatioName): number {
  const [width, height] = ratio.split(':').map(Number);
  return width! / height!;
}

/**
 * What an `img` needs to show a picture as it is wanted; null of what is no picture. `lazy`: it is
 * fetched when it comes near.
 */
export function drawnPicture(
  media: Media,
  { width: wanted, ratio }: PictureWish,
  lazy = false,
): DrawnPicture | null {
  if (!isPicture(media) || media.width === 0 || media.height === 0) return null;
  const shape = ratio ? shapeOf(ratio) : media.width / media.height;
  const widest = Math.max(1, Math.min(media.width, Math.round(media.height * shape)));
  const isDrawing = media.mime === MEDIA_FORMATS.svg.mime;
  const width = isDrawing ? wanted : Math.min(wanted, widest);
  // A drawing has no size of its own: it is sent as it is, unless it is cut.
  const isWhole = isDrawing && !ratio;
  return {
    src: isWhole ? filePath(media) : picturePath(media, width, ratio),
    srcset: isWhole ? '' : choices(media, { width, ratio }, isDrawing ? Infinity : widest),
    sizes: isWhole ? '' : `(max-width: ${width}px) 100vw, ${width}px`,
    alt: media.decorative ? '' : media.alt,
    width,
    height: Math.max(1, Math.round(width / shape)),
    lazy,
  };
}

/** The widths to choose from, up to twice the one drawn, and to `widest` px (HTML, `srcset`). */
function choices(media: Media, { width, ratio }: PictureWish, widest: number): string {
  const most = Math.min(2 * width, widest);
  const cut = cutName(media, ratio);
  let out = '';
  for (let i = 0; i < PICTURE_WIDTHS.length; i++) {
    const step = PICTURE_WIDTHS[i]!;
    out += `${i === 0 ? '' : ', '}/media/${media.hash}/${step}${cut} ${Math.min(step, widest)}w`;
    if (step >= most) break;
  }
  return out;
}
