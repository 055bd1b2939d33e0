/** Where a new entry of a type begins that is to stand somewhere: `listing/KEY`, `picks/KEY`, … */
export const newHere = (type: string, here: string): string =>
  `/build/content/new/${type}?here=${encodeURIComponent(here)}`;
