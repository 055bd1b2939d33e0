/** One kind of seed of the demo. */
export interface Variety {
  id: string;
  title: string;
  latin: string;
  summary: string;
  story: string;
  family: string;
  traits: string[];
  /** Sowing window in days from the day of loading. */
  sow: [number, number];
  days: number;
  ease: 'easy' | 'some-care' | 'demanding';
  stock: number;
  grower: string;
  companions: string[];
  live: string[];
  older?: { saved: string; title?: string; summary?: string };
  saved?: string;
  plans?: { at: string; do: 'publish' | 'retire' }[];
}
