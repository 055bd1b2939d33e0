/** What is known of a format of files: media type (IANA), name ending and what people call it. */
export interface MediaFormat {
  mime: string;
  ending: string;
  label: string;
}

/** Every format that media have, by the name that fields and files give it. */
export const MEDIA_FORMATS = {
  jpeg: { mime: 'image/jpeg', ending: 'jpg', label: 'JPEG' },
  png: { mime: 'image/png', ending: 'png', label: 'PNG' },
  webp: { mime: 'image/webp', ending: 'webp', label: 'WebP' },
  gif: { mime: 'image/gif', ending: 'gif', label: 'GIF' },
  avif: { mime: 'image/avif', ending: 'avif', label: 'AVIF' },
  svg: { mime: 'image/svg+xml', ending: 'svg', label: 'SVG' },
  pdf: { mime: 'application/pdf', ending: 'pdf', label: 'PDF' },
} as const satisfies Record<string, MediaFormat>;

/** The name of a format of media. */
export type FormatName = keyof typeof MEDIA_FORMATS;

/** The names of all formats, in the order in which they are offered. */
export const FORMAT_NAMES = Object.keys(MEDIA_FORMATS) as [FormatName, ...FormatName[]];

/** The format of a media type; null where media have no such. */
export function formatOf(mime: string): FormatName | null {
  return FORMAT_NAMES.find((name) => MEDIA_FORMATS[name].mime === mime) ?? null;
}

/** Whether files of a media type are pictures, which pages can show. */
export function isPicture({ mime }: { mime: string }): boolean {
  return mime.startsWith('image/');
}
