import { useMemo } from 'react';

/** The HTML of a page or a card, or what stands in its head, to be read. */
export function SourceView({ html, part }: { html: string; part: 'body' | 'head' }) {
  const text = useMemo(() => sourceOf(html, part), [html, part]);
  return (
    <pre
      tabIndex={0}
      aria-label={part === 'head' ? 'Head of the page' : 'Markup of the page'}
      className="min-h-0 flex-1 overflow-auto whitespace-pre-wrap px-6 py-3 font-mono text-note"
    >
      {text}
    </pre>
  );
}

const VOID = /^<(area|br|col|hr|img|input|link|meta|source|wbr)\b/;

/** Each element that begins a line of its own stands on one, as deep as it stands in others. */
function sourceOf(html: string, part: 'body' | 'head'): string {
  const page = new DOMParser().parseFromString(html.replace(/<!--.*?-->/g, ''), 'text/html');
  let depth = 0;
  const lines = page[part].innerHTML.replace(/>\s*</g, '>\n<').trim().split('\n');
  return lines
    .map((line) => {
      if (line.startsWith('</')) depth = Math.max(0, depth - 1);
      const shown = `${'  '.repeat(depth)}${line}`;
      const opens = /^<[a-z]/.test(line) && !VOID.test(line) && !/<\/[a-z0-9]+>$/.test(line);
      if (opens) depth += 1;
      return shown;
    })
    .join('\n');
}
