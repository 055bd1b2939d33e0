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
}

const en: PublicWords = {
  pages: 'Pages',
  previous: 'Previous',
  next: 'Next',
  page: 'page',
  skip: 'Skip to content',
  notFound: 'Page not found',
  notFoundText: 'There is nothing at this address.',
  gone: 'No longer here',
  goneText: 'What stood at this address has been taken down.',
  badRequest: 'Not an address',
  badRequestText: 'This address cannot be read.',
  moved: 'This page has moved to',
  newest: 'Newest pages',
  here: 'You are here',
  more: 'More of the same',
  onThisPage: 'On this page',
  standStill: 'Stand still',
  back: 'Back',
  further: 'Further',
  search: 'Search',
  narrow: 'Narrow this list',
  find: 'Find',
  show: 'Show',
  showAll: 'Show all',
  showMore: 'Show more',
  order: 'Order',
  usualOrder: 'Usual order',
  without: 'Without',
  yes: 'Yes',
  no: 'No',
  languages: 'Languages',
  found: (count) => `${count} found.`,
};

const de: PublicWords = {
  pages: 'Seiten',
  previous: 'Zurück',
  next: 'Weiter',
  page: 'Seite',
  skip: 'Zum Inhalt',
  notFound: 'Seite nicht gefunden',
  notFoundText: 'Unter dieser Adresse gibt es nichts.',
  gone: 'Nicht mehr da',
  goneText: 'Was unter dieser Adresse stand, wurde entfernt.',
  badRequest: 'Keine Adresse',
  badRequestText: 'Diese Adresse ist nicht lesbar.',
  moved: 'Diese Seite steht jetzt unter',
  newest: 'Neueste Seiten',
  here: 'Sie sind hier',
  more: 'Mehr davon',
  onThisPage: 'Auf dieser Seite',
  standStill: 'Anhalten',
  back: 'Zurück',
  further: 'Weiter',
  search: 'Suchen',
  narrow: 'Diese Liste eingrenzen',
  find: 'Finden',
  show: 'Anzeigen',
  showAll: 'Alle anzeigen',
  showMore: 'Mehr anzeigen',
  order: 'Reihenfolge',
  usualOrder: 'Übliche Reihenfolge',
  without: 'Ohne',
  yes: 'Ja',
  no: 'Nein',
  languages: 'Sprachen',
  found: (count) => `${count} gefunden.`,
};

const BY_LANGUAGE: Record<string, PublicWords> = { en, de };

/** The words in a language, by its primary subtag; English where there are none. */
export function wordsOf(language: string): PublicWords {
  return KNOWN.get(language) ?? looked(language);
}

/** The words of the languages that were asked for. */
const KNOWN = new Map<string, PublicWords>();

function looked(language: string): PublicWords {
  const words = BY_LANGUAGE[language.split('-')[0]!.toLowerCase()] ?? en;
  KNOWN.set(language, words);
  return words;
}
