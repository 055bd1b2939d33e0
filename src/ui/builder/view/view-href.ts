/** Where a page of the site is edited as it stands, by its path and what may stand behind it. */
export function viewHref(address: string): string {
  const [path = '', query = ''] = address.split('#', 1)[0]!.split(/\?(.*)/su);
  const own = path.startsWith('/') ? path : `/${path}`;
  return `/build/view${own}${query === '' ? '' : `?query=${encodeURIComponent(query)}`}`;
}
