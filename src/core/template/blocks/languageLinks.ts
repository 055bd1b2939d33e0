import { z } from 'zod';
import { escapeHtml } from '../../text.ts';
import type { LanguageLink } from '../context.ts';
import { defineBlock } from '../definition.ts';
import { classes } from '../html.ts';
import { wordsOf } from '../words.ts';

/** The page in the other languages of the site; nothing where that is in one. */
export const languageLinks = defineBlock({
  block: 'languageLinks',
  label: 'Language links',
  doc: 'The page in each language of the site; the front page of one in which it is not.',
  spec: {
    /** What it is called where pages are read out. */
    label: z.string().optional(),
  },
  compile: ({ label, style }) => {
    const opening = `<nav${classes('languages', style)}`;
    return (scope) => {
      const links = scope.languages();
      if (links.length < 2) return '';
      const name = escapeHtml(label ?? wordsOf(scope.language).languages);
      return `${opening} aria-label="${name}"><ul>${links.map(linkHtml).join('')}</ul></nav>`;
    };
  },
  example: {
    block: { block: 'languageLinks' },
    html: '<nav class="languages" aria-label="Languages"><ul><li><a href="/seeds/blue-pea" hreflang="en" lang="en" aria-current="true">English</a></li><li><a href="/de/seeds/blue-pea" hreflang="de" lang="de">Deutsch</a></li></ul></nav>',
  },
});

function linkHtml({ language, label, path, isHere }: LanguageLink): string {
  const tag = escapeHtml(language);
  const here = isHere ? ' aria-current="true"' : '';
  return `<li><a href="${escapeHtml(path)}" hreflang="${tag}" lang="${tag}"${here}>${escapeHtml(label)}</a></li>`;
}
