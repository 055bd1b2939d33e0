/** What the Addresses screen shows, in its address bar. */
export interface AddressParameters {
  tab: string;
  search: string;
  kind: string;
  type: string;
  /** Id of a further language; '' for the site's own. */
  language: string;
  /** The address that is tried. */
  try: string;
  /** A redirect that is begun: where it starts and leads. */
  from: string;
  to: string;
}

/** Shows something else. */
export type ShowAddresses = (change: Partial<AddressParameters>) => void;

const NAMES = ['tab', 'search', 'kind', 'type', 'language', 'try', 'from', 'to'] as const;

/** Reads what an address bar holds. */
export function addressParameters(search: Record<string, string | undefined>): AddressParameters {
  return Object.fromEntries(
    NAMES.map((name) => [name, search[name] ?? '']),
  ) as unknown as AddressParameters;
}

/** The path of the screen that shows something. */
export function addressesHref(parameters: Partial<AddressParameters>): string {
  const given = NAMES.flatMap((name) => (parameters[name] ? [[name, parameters[name]]] : []));
  const query = new URLSearchParams(given).toString();
  return `/build/addresses${query === '' ? '' : `?${query}`}`;
}
