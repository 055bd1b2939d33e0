import type { ContentType, Design } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { didYouMean } from '@/core/did-you-mean.ts';
import type { Told } from './entry-timing.ts';

type Place = (string | number)[];

/** Reads what entries say in other languages than the site's own. */
export class FurtherWords {
  private readonly tags: string[];

  constructor(
    { languages }: Design,
    private readonly told: Told,
    /** Reads values by the keys of their fields. */
    private readonly valuesOf: (fields: Record<string, unknown>, at: Place) => Values,
  ) {
    this.tags = languages.map(({ language }) => language);
  }

  /** Values by language and field id; what is of no language, or is not translated, is named. */
  read(
    type: ContentType,
    given: Record<string, Record<string, unknown>> | undefined,
    at: Place,
  ): Record<string, Values> {
    const found: Record<string, Values> = {};
    for (const [tag, fields] of Object.entries(given ?? {})) {
      if (!this.tags.includes(tag)) this.unknown(tag, [...at, tag]);
      const values = this.valuesOf(fields, [...at, tag]);
      for (const { id, key, label, translated } of type.fields)
        if (id in values && !translated)
          this.told(
            [...at, tag, key],
            'not-translated',
            `${label} is the same in every language.`,
            'Write it beside the other fields, or have the field translated.',
          );
      found[tag] = values;
    }
    return found;
  }

  private unknown(tag: string, at: Place): void {
    const none = 'The site is in no other language: a file of languages/ says which.';
    const all = `There are: ${this.tags.join(', ')}.`;
    const fix = this.tags.length === 0 ? none : didYouMean(tag, this.tags, all);
    this.told(at, 'unknown-language', `The site is not in the language "${tag}".`, fix);
  }
}
