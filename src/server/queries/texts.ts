import { withInner } from '@/core/design/fields-within.ts';
import type { Design } from '@/core/design/spec.ts';
import { isPart } from '@/core/design/text-form.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { sentencesAbout } from './bench.ts';
import type { Looking } from './clock.ts';
import type { SiteView } from './site-view.ts';

/** A form of texts, with the fields that have it. */
export type TextFormLine = Design['textForms'][number] & {
  /** "Variety: Story", a field each. */
  fields: string[];
  /** What the bench holds of it, a sentence each. */
  onBench: string[];
};

/** What texts may hold, and the styles that they may use. */
export interface TextsDetail {
  forms: TextFormLine[];
  /** Those that words, paragraphs and pictures can have. */
  styles: Design['styles'];
  /** The types whose values may stand in texts. */
  parts: { key: string; label: string }[];
  language: string;
}

/** The forms of texts in the working design; in the past as they were released. */
export function textsDetail(
  view: SiteView,
  actor: Actor,
  { at, past }: Looking,
): TextsDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const design = view.editable(at, past)?.site.design;
  if (!design) return null;
  const { types, textForms, styles, site } = design;
  const fields = types.flatMap(({ label, fields: own }) =>
    withInner(own).map((field) => ({ form: field.form, words: `${label}: ${field.label}` })),
  );
  return {
    forms: textForms.map((form) => ({
      ...form,
      fields: fields.flatMap(({ form: key, words }) => (key === form.key ? [words] : [])),
      onBench: past ? [] : sentencesAbout(view, `textForms/${form.id}`, at),
    })),
    styles: styles.filter(({ on }) => on !== 'block'),
    parts: types.filter(isPart).map(({ key, label }) => ({ key, label })),
    language: site.language,
  };
}
