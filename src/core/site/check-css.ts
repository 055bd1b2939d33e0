import { type AtRule, CssSyntaxError, parse } from 'postcss';
import type { Issue } from '../issue.ts';

const OWN_FILE = /^\/(style|media)\/[a-z0-9._/-]+$/i;
/** Functions that fetch without saying url(…). */
const FETCHING = /(?<![\w-])((?:-\w+-)?image-set|image|src|cross-fade|element|paint)\s*\(/i;

/**
 * What a style sheet may not have: other sheets, files from elsewhere, scripts. Escapes are read
 * first.
 */
export function checkCss(text: string): Issue[] {
  if (text === '') return [];
  const issues: Issue[] = [];
  const refuse = (line: number | undefined, message: string, fix: string): void =>
    void issues.push({ code: 'style-refused', path: 'style/css', line: line ?? 1, message, fix });
  try {
    parse(text).walk((node) => {
      const line = node.source?.start?.line;
      if (node.type === 'atrule' && isOtherSheet(node))
        refuse(line, 'A style sheet may not import another.', 'Copy its rules here.');
      const given = node.type === 'decl' ? node.value : node.type === 'atrule' ? node.params : '';
      for (const [message, fix] of wrongIn(plain(given))) refuse(line, message, fix);
    });
  } catch (error) {
    if (!(error instanceof CssSyntaxError)) throw error;
    refuse(error.line, `This is not CSS: ${error.reason}.`, 'Close every brace and quote.');
  }
  return issues;
}

/** Names of rules may be written with escapes, at which they are cut in two when they are read. */
function isOtherSheet({ name, raws, params }: AtRule): boolean {
  return /^(import|namespace)(?![\w-])/i.test(plain(`${name}${raws.afterName ?? ''}${params}`));
}

function wrongIn(value: string): [message: string, fix: string][] {
  const wrong: [string, string][] = [];
  const own = 'Put the file in the folder style/ and write url("/style/name").';
  for (const [, target] of value.matchAll(/url\(\s*["']?([^"')]*)["']?[^)]*\)?/gi))
    if (!OWN_FILE.test(target!.trim()))
      wrong.push([
        `A style sheet may only use files of this site, and here is ${target!.slice(0, 200)}.`,
        own,
      ]);
  const fetching = FETCHING.exec(value)?.[1];
  if (fetching) wrong.push([`A style sheet may not use ${fetching}(…).`, own]);
  if (/expression\s*\(|javascript:|-moz-binding|behavior\s*:/i.test(value))
    wrong.push(['A style sheet may not run scripts.', 'Take it out.']);
  return wrong;
}

/** A value with its escapes read (CSS Syntax 3, §4.3.7) and its comments left out. */
function plain(value: string): string {
  return value
    .replace(/\/\*[\s\S]*?\*\//g, '')
    .replace(
      /\\(?:([0-9a-f]{1,6})\s?|(\n)|([^]))/gi,
      (_, hex?: string, newline?: string, c?: string) =>
        hex ? fromCode(parseInt(hex, 16)) : newline ? '' : (c ?? ''),
    );
}

function fromCode(code: number): string {
  return code === 0 || code > 0x10ffff ? '\ufffd' : String.fromCodePoint(code);
}
