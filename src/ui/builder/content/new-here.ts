/** Where a new entry is to stand: `listing/KEY`, `picks/KEY`, or `leading/FIELD/ENTRY`. */
export interface Standing {
  here: string;
  /** Id of the entry on whose page a listing stands that compares with it. */
  on?: string | undefined;
  /** Key of the value that a page of the listing is of. */
  each?: string | undefined;
}

/** Where a new entry of a type begins that is to stand somewhere. */
export function newHere(type: string, { here, on, each }: Standing): string {
  const asked = new URLSearchParams({ here });
  if (on !== undefined) asked.set('on', on);
  if (each !== undefined) asked.set('each', each);
  return `/build/content/new/${type}?${asked.toString()}`;
}
