import type { SiteView } from '@/server/queries/site-view.ts';
import { at } from './folder.ts';

export const note = (more: object = {}): object => ({
  key: 'note',
  address: '/{title}',
  fields: [
    { key: 'title', kind: 'text' },
    { key: 'about', kind: 'reference', types: ['note'] },
  ],
  ...more,
});
export const page = (more: object = {}): object => ({
  key: 'page',
  address: '[{within.path}]/{title}',
  fields: [
    { key: 'title', kind: 'text' },
    { key: 'inside', kind: 'reference', types: ['page'], sitsWithin: true },
  ],
  ...more,
});

/** `path@instant` → status, and where it leads. */
export function answer(view: SiteView, path: string, instant: string): string {
  const { status, headers } = view.render(path, at(instant))!;
  return headers.location === undefined ? String(status) : `${status} ${headers.location}`;
}

export function paths(view: SiteView, instant: string): string[] {
  return view.pages(at(instant))!.map((p) => p.path);
}

export const entry = (
  id: string,
  title: string,
  live: unknown,
  more: object = {},
  fields: object = {},
): object => ({
  entry: { id, created: '2025-01-01', saved: '2025-01-01', live, ...more },
  title,
  ...fields,
});
