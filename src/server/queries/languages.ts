import { labelOf, outerNames, propertyWords } from '@/core/design-edit/describe.ts';
import { partAt, rootOf, sortWord } from '@/core/design-edit/parts.ts';
import { type Language, nameOfLanguage } from '@/core/design/language-spec.ts';
import type { Design } from '@/core/design/spec.ts';
import { type DesignText, saidIn, textsOf } from '@/core/design/texts.ts';
import { sentence } from '@/core/design/words.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { sentencesAbout } from './bench.ts';
import type { Looking } from './clock.ts';
import type { SiteView } from './site-view.ts';

/** A language that the site is in besides its own. */
export interface LanguageLine {
  spec: Language;
  /** How many of the design's texts it says otherwise. */
  said: number;
  /** What the bench holds of it, a sentence each. */
  onBench: string[];
}

/** Texts of one part of the design that readers meet. */
export interface TextGroup {
  /** "Type: Variety". */
  label: string;
  texts: (DesignText & { label: string })[];
}

/** The languages of a site, and all that its design says. */
export interface LanguagesDetail {
  own: { language: string; label: string };
  languages: LanguageLine[];
  groups: TextGroup[];
  /** How many texts there are in all. */
  count: number;
}

/** The languages in the working design; in the past as they were released. */
export function languagesDetail(
  view: SiteView,
  actor: Actor,
  { at, past }: Looking,
): LanguagesDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const design = view.editable(at, past)?.site.design;
  if (!design) return null;
  const texts = textsOf(design).filter(({ text }) => text.trim() !== '');
  const { language } = design.site;
  return {
    own: { language, label: nameOfLanguage(language) },
    languages: design.languages.map((spec) => ({
      spec,
      said: texts.filter((text) => saidIn(spec, text) !== null).length,
      onBench: past ? [] : sentencesAbout(view, `languages/${spec.id}`, at),
    })),
    groups: groupsOf(design, texts),
    count: texts.length,
  };
}

function groupsOf(design: Design, texts: readonly DesignText[]): TextGroup[] {
  const groups = new Map<string, TextGroup>();
  for (const text of texts) {
    const root = rootOf(text.part);
    const known = groups.get(root) ?? { label: rootLabel(design, root), texts: [] };
    known.texts.push({ ...text, label: labelIn(design, text, root) });
    groups.set(root, known);
  }
  return [...groups.values()];
}

function rootLabel(design: Design, root: string): string {
  if (root === 'site') return 'Site';
  return `${sentence(sortWord(root) ?? '')}: ${labelOf(partAt(design, root)) ?? root}`;
}

function labelIn(design: Design, { part, property }: DesignText, root: string): string {
  const words = propertyWords(property);
  if (part === root) return sentence(words);
  const within = outerNames(design, part).slice(1);
  const own = labelOf(partAt(design, part)) ?? '';
  return `${[...within, own].join(', ')}: ${words}`;
}
