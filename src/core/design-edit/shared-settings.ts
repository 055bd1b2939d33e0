import type { ContentType } from '../design/spec.ts';
import type { Json, Part } from './parts.ts';
import { valueAt } from './properties.ts';
import type { Step } from './steps.ts';

/** A setting that types have alike, and that can be set for several at once. */
export interface SharedSetting {
  /** Where it stands in a type: `seo.title`. */
  property: string;
  label: string;
  /** What it can be, each with its words; null for a pattern. */
  values: readonly { value: string | boolean; words: string }[] | null;
  /** What holds where nothing is set. */
  otherwise: string;
}

/** Every such setting, in the order that screens offer them. */
export const SHARED_SETTINGS: readonly SharedSetting[] = [
  {
    property: 'seo.title',
    label: 'Title for search engines',
    values: null,
    otherwise: 'what names the entry',
  },
  {
    property: 'seo.description',
    label: 'Description for search engines',
    values: null,
    otherwise: 'the summary, else the first paragraph',
  },
  {
    property: 'seo.index',
    label: 'Whether search engines list the pages',
    values: [
      { value: true, words: 'they may' },
      { value: false, words: 'they may not' },
    ],
    otherwise: 'as the site has it',
  },
  {
    property: 'seo.sitemap',
    label: 'Whether the pages stand in the sitemap',
    values: [
      { value: true, words: 'they do' },
      { value: false, words: 'they do not' },
    ],
    otherwise: 'as the site has it',
  },
  {
    property: 'seo.shareType',
    label: 'What share cards say the pages are',
    values: [
      { value: 'website', words: 'part of a website' },
      { value: 'article', words: 'an article' },
      { value: 'profile', words: 'a profile' },
    ],
    otherwise: 'as the site has it',
  },
  {
    property: 'presets.author',
    label: 'Whether bylines show who wrote it',
    values: [
      { value: true, words: 'they do' },
      { value: false, words: 'they do not' },
    ],
    otherwise: 'they do not',
  },
  {
    property: 'presets.date',
    label: 'Which date bylines show',
    values: [
      { value: 'none', words: 'none' },
      { value: 'published', words: 'that of the first publication' },
      { value: 'updated', words: 'that of the last change' },
    ],
    otherwise: 'none',
  },
  {
    property: 'presets.listed',
    label: 'Whether listings show the entries',
    values: [
      { value: true, words: 'they do, and each can be kept out' },
      { value: false, words: 'only those of which it is said' },
    ],
    otherwise: 'they do, all of them',
  },
  {
    property: 'clash',
    label: 'When an address is taken',
    values: [
      { value: 'number', words: 'the later entry is numbered' },
      { value: 'refuse', words: 'the later entry is refused' },
    ],
    otherwise: 'the later entry is numbered',
  },
];

/** What types have of such settings, by property; null where nothing is set. */
export type SettingValues = Record<string, string | boolean | null>;

/** All such settings of a type. */
export function settingsOf(type: ContentType): SettingValues {
  const part = type as unknown as Part;
  return Object.fromEntries(
    SHARED_SETTINGS.map(({ property }) => [property, valueAt(part, property) as never]),
  );
}

/** The step that sets one for a type; null where it is so already. */
export function settingStep(
  { id, settings }: { id: string; settings: SettingValues },
  property: string,
  now: string | boolean | null,
): Step | null {
  const was = settings[property] ?? null;
  if (was === now) return null;
  return { do: 'set', part: `types/${id}`, property, was: was as Json, now: now as Json };
}
