import { parse, CssSyntaxError } from 'postcss';
import type { Issue } from '@/core/issue.ts';

/** What a style sheet may not have: other sheets, and files from elsewhere. */
export function checkCss(file: string, text: string): Issue[] {
  const issues: Issue[] = [];
  const refuse = (line: number | undefined, message: string, fix: string): void =>
    void issues.push({ code: 'style-refused', path: file, line: line ?? 1, message, fix });
  try {
    parse(text).walk((node) => {
      const line = node.source?.start?.line;
      if (node.type === 'atrule' && node.name.toLowerCase() === 'import')
        refuse(line, 'A style sheet may not import another.', 'Copy its rules here.');
      const value = node.type === 'decl' ? node.value : node.type === 'atrule' ? node.params : '';
      for (const [, target] of value.matchAll(/url\(\s*["']?([^"')]*)["']?\s*\)/gi)) {
        if (!/^\/(style|media)\/[a-z0-9._/-]+$/i.test(target!))
          refuse(
            line,
            `A style sheet may only use files of this site, and here is ${target}.`,
            'Put the file in the folder style/ and write url("/style/name").',
          );
      }
      if (/expression\s*\(|javascript:/i.test(value))
        refuse(line, 'A style sheet may not run scripts.', 'Take it out.');
    });
  } catch (error) {
    if (!(error instanceof CssSyntaxError)) throw error;
    refuse(error.line, `This is not CSS: ${error.reason}.`, 'Close every brace and quote.');
  }
  return issues;
}
