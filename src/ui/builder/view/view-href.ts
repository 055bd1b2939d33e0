/** Where a path of the site is edited as it stands. */
export function viewHref(path: string): string {
  const [own = ''] = path.split(/[?#]/u);
  return `/build/view${own.startsWith('/') ? own : `/${own}`}`;
}
