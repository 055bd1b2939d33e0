/** Words the site itself puts on public pages. */
export interface PublicWords {
  pages: string;
  previous: string;
  next: string;
  page: string;
  skip: string;
  notFound: string;
  notFoundText: string;
  gone: string;
  goneText: string;
  badRequest: string;
  badRequestText: string;
  moved: string;
  newest: string;
  here: string;
  more: string;
  onThisPage: string;
  standStill: string;
  /** What pushes a row sideways. */
  back: string;
  further: string;
  search: string;
  narrow: string;
  find: string;
  show: string;
  showAll: string;
  showMore: string;
  order: string;
  usualOrder: string;
  without: string;
  yes: string;
  no: string;
  languages: string;
  found: (count: number) => string;
  /** From one month to another. */
  fromTo: (from: string, to: string) => string;
}
