import type { Field } from '../design/field.ts';
import { kindOf } from '../design/kinds/index.ts';

/** A pattern that tells clashing addresses apart by something more. */
export interface TellingApart {
  /** What it adds, in words: "the year". */
  words: string;
  pattern: string;
}

const MOST = 5;

/**
 * What may be added to an address pattern so that entries of one name do not clash: single dates by
 * their year, choices, subjects and references that it does not read yet, and the year of the first
 * publication.
 */
export function tellingApart(pattern: string, fields: readonly Field[]): TellingApart[] {
  if (pattern.trim() === '') return [];
  const isRead = (name: string): boolean => new RegExp(`[{(\\s]${name}\\b`).test(pattern);
  const own = fields
    .filter(({ key, many }) => !many && !isRead(key))
    .flatMap((field): TellingApart[] => {
      const { key, label } = field;
      const { family } = kindOf(field);
      const words = label.toLowerCase();
      if (family === 'day' || family === 'instant')
        return [{ words: `the year of ${words}`, pattern: `${pattern}[-{year(${key})}]` }];
      const isNamed = family === 'choice' || (family === 'members' && kindOf(field).target(field));
      return isNamed ? [{ words, pattern: `${pattern}[-{${key}}]` }] : [];
    });
  const published: TellingApart[] = isRead('entry.published')
    ? []
    : [{ words: 'the year of publication', pattern: `${pattern}-{year(entry.published)}` }];
  return [...published, ...own].slice(0, MOST);
}
