import { expect, test } from 'vitest';
import { codeHtml } from './code-html.ts';

const html = (text: string, language?: string): string =>
  codeHtml({
    type: 'codeBlock',
    ...(language === undefined ? {} : { attrs: { language } }),
    content: [{ type: 'text', text }],
  });
const CODE = 'const a = `<b>`; // "x" & y\n\n  if (a) return {};';

test('code in a language that is known is coloured by classes, and keeps every letter', () => {
  const coloured = html(CODE, 'ts');
  expect(coloured).toContain('<span class="code-keyword">const</span>');
  expect(coloured).not.toContain('style=');
  expect(coloured.replace(/<\/?span[^>]*>/g, '')).toBe(
    html(CODE, 'nothing').replace('language-nothing', 'language-ts'),
  );
});

test('code in no language, or one that is not known, stands as it is', () => {
  expect(html('a < b')).toBe('<pre tabindex="0"><code>a &lt; b\n</code></pre>');
  expect(html('a < b', 'constructor')).toBe(
    '<pre tabindex="0"><code class="language-constructor">a &lt; b\n</code></pre>',
  );
});
