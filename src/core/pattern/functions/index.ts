import { count } from './count.ts';
import { date } from './date.ts';
import { day } from './day.ts';
import type { PatternFunction } from './definition.ts';
import { first } from './first.ts';
import { firstHeading } from './firstHeading.ts';
import { firstParagraph } from './firstParagraph.ts';
import { image } from './image.ts';
import { join } from './join.ts';
import { last } from './last.ts';
import { limit } from './limit.ts';
import { lower } from './lower.ts';
import { month } from './month.ts';
import { number } from './number.ts';
import { pad } from './pad.ts';
import { plain } from './plain.ts';
import { readingMinutes } from './readingMinutes.ts';
import { replace } from './replace.ts';
import { slug } from './slug.ts';
import { trim } from './trim.ts';
import { upper } from './upper.ts';
import { url } from './url.ts';
import { year } from './year.ts';

const ALL = [
  lower,
  upper,
  trim,
  slug,
  limit,
  replace,
  plain,
  firstParagraph,
  firstHeading,
  readingMinutes,
  date,
  year,
  month,
  day,
  number,
  pad,
  first,
  last,
  join,
  count,
  url,
  image,
];

/** Every function of the pattern language, by name, in the order the help shows. */
export const FUNCTIONS: ReadonlyMap<string, PatternFunction> = new Map(ALL.map((f) => [f.name, f]));
