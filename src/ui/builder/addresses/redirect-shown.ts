/** A redirect set by hand, as it stands in the working design, and how often it led on. */
export interface RedirectShown {
  id: string;
  from: string;
  to: string;
  status: number;
  prefix?: boolean | undefined;
  hits: { total: number; days: { day: string; count: number }[] };
}
