import {
  createCssVariablesTheme,
  createHighlighterCoreSync,
  type HighlighterCore,
} from 'shiki/core';
import { createJavaScriptRegexEngine } from 'shiki/engine/javascript';
import bash from 'shiki/langs/bash.mjs';
import css from 'shiki/langs/css.mjs';
import html from 'shiki/langs/html.mjs';
import javascript from 'shiki/langs/javascript.mjs';
import json from 'shiki/langs/json.mjs';
import markdown from 'shiki/langs/markdown.mjs';
import python from 'shiki/langs/python.mjs';
import sql from 'shiki/langs/sql.mjs';
import typescript from 'shiki/langs/typescript.mjs';
import xml from 'shiki/langs/xml.mjs';
import yaml from 'shiki/langs/yaml.mjs';
import { escapeHtml } from '../text.ts';
import type { RichNode } from '../rich-text/index.ts';

const LANGUAGES = {
  bash,
  css,
  html,
  javascript,
  json,
  markdown,
  python,
  sql,
  typescript,
  xml,
  yaml,
};
/** Other names of languages, as people write them. */
const ALIASES: Readonly<Record<string, string>> = {
  sh: 'bash',
  shell: 'bash',
  js: 'javascript',
  md: 'markdown',
  py: 'python',
  ts: 'typescript',
  svg: 'xml',
  yml: 'yaml',
};
/** The language that a name means. */
const NAMES = new Map([
  ...Object.keys(LANGUAGES).map((name) => [name, name] as const),
  ...Object.entries(ALIASES),
]);
/** Colours are classes, which the style sheet draws: pages allow no styles of their own. */
const THEME = createCssVariablesTheme({ name: 'classes', variablePrefix: '--code-' });
/** More than this is shown without colours, in characters. */
const MOST = 50_000;

let highlighter: HighlighterCore | null = null;
/** Made when code is first drawn: grammars take long to read. */
function ready(): HighlighterCore {
  highlighter ??= createHighlighterCoreSync({
    themes: [THEME],
    langs: Object.values(LANGUAGES),
    engine: createJavaScriptRegexEngine({ forgiving: true }),
  });
  return highlighter;
}

/** A block of code, its words coloured by classes `code-…` where its language is known. */
export function codeHtml({ content, attrs }: RichNode): string {
  const text = (content ?? []).map((n) => n.text ?? '').join('');
  const { language } = attrs ?? {};
  const name = typeof language === 'string' ? language : '';
  const named = name === '' ? '' : ` class="language-${escapeHtml(name)}"`;
  const words = coloured(text, name.toLowerCase());
  // What is pushed sideways is reached by key, too (WCAG 2.2, 2.1.1).
  return `<pre tabindex="0"><code${named}>${words}${text === '' ? '' : '\n'}</code></pre>`;
}

function coloured(text: string, name: string): string {
  const language = NAMES.get(name);
  if (language === undefined || text.length > MOST) return escapeHtml(text);
  const { tokens } = ready().codeToTokens(text, {
    lang: language,
    theme: 'classes',
    tokenizeTimeLimit: 0, // as fast or slow as the machine is, the page is the same
    tokenizeMaxLineLength: 0,
  });
  return tokens.map((line) => line.map(tokenHtml).join('')).join('\n');
}

function tokenHtml({ content, color }: { content: string; color?: string | undefined }): string {
  const kind = /--code-token-([a-z-]+)/.exec(color ?? '')?.[1];
  const words = escapeHtml(content);
  return kind === undefined ? words : `<span class="code-${kind}">${words}</span>`;
}
