import type { Design } from '../design/spec.ts';
import { escapeHtml } from '../text.ts';
import { BLOCKS } from './blocks/index.ts';

/** In place of a picture. */
const PICTURE = [
  '<svg role="img" aria-label="A picture" viewBox="0 0 320 200" width="320" height="200">',
  '<rect width="320" height="200" fill="currentColor" opacity=".12"/>',
  '<circle cx="120" cy="110" r="64" fill="currentColor" opacity=".15"/>',
  '<circle cx="214" cy="84" r="40" fill="currentColor" opacity=".15"/></svg>',
].join('');

const WORDS = `Whatever grows is written down, so that those who come after need not guess, and
those who were here before are not forgotten.`;

const TEXT = `<h2>A text with all there is</h2>
<p>Words that go on, with <strong>strong</strong> and <em>stressed</em> ones,
a <a href="#content">link</a>, <code>code</code>, and <s>what no longer holds</s>.</p>
<h3>Lists</h3>
<ul><li>One thing</li><li>Another, with more to say, so that it runs over the end of the line
where the page is narrow</li></ul><ol><li>First this</li><li>Then that</li></ol>
<h3>A quotation, and a table</h3><blockquote><p>It keeps what there is.</p></blockquote>
<table><thead><tr><th>What</th><th>When</th></tr></thead>
<tbody><tr><td>Peas</td><td>March</td></tr><tr><td>Beans</td><td>May</td></tr></tbody></table>
<pre tabindex="0"><code><span class="code-comment">// a note</span>
<span class="code-keyword">return</span> 42</code></pre><hr>
<figure class="picture">${PICTURE}
<figcaption>What it shows <small class="credit">Who made it</small></figcaption></figure>`;

/**
 * The inside of a page on which everything stands that a style can form: a text, the named styles
 * of texts, and what each kind of block makes, by its name.
 */
export function examplesHtml({ styles }: Pick<Design, 'styles'>): string {
  const named = styles.map(exampleOf);
  const blocks = BLOCKS.filter(({ in: place }) => place === undefined).map(
    ({ label, example }) => `<h3>${escapeHtml(label)}</h3>${onTheirOwn(example.html)}`,
  );
  const more = named.length === 0 ? '' : `<h2>Named styles</h2>${named.join('')}`;
  const text = `<div class="rich-text">${TEXT}</div>`;
  return `<h1>What everything looks like</h1>${more}${text}<h2>Blocks</h2>${blocks.join('')}`;
}

/** What a block makes, without what is not there: its pictures, and where its links lead. */
function onTheirOwn(html: string): string {
  return html.replaceAll(/<img[^>]*>/g, PICTURE).replaceAll(/href="[^"]*"/g, 'href="#content"');
}

function exampleOf({ key, label, on }: Design['styles'][number]): string {
  const words = escapeHtml(label);
  const name = ` class="style-${escapeHtml(key)}"`;
  switch (on) {
    case 'picture':
      return `<p>${words}:</p>${PICTURE.replace('<svg', `<svg${name}`)}<p>${WORDS}</p>`;
    case 'words':
      return `<p>Words, <span${name}>${words}</span>, and more words.</p>`;
    case 'paragraph':
      return `<p${name}>${words}: a paragraph in this style. ${WORDS}</p>`;
    case 'block':
      return (
        `<div${name}><h3>${words}</h3><p>A block in this style, with ` +
        `<a href="#content">a link</a>. ${WORDS}</p></div>`
      );
  }
}
