/** The screen of a starter. */
export function starterHref(id: string): string {
  return `/build/content/starters/${encodeURIComponent(id)}`;
}
