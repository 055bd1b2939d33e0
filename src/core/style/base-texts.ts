/** Rules for the page itself and for texts, whatever the look: it gives the properties. */
export const BASE_TEXTS = `
* {
  box-sizing: border-box;
}
body {
  margin: 0;
  padding: 0 var(--edge) var(--s6);
  background: var(--ground);
  color: var(--ink);
  font: var(--text)/1.6 var(--face);
  overflow-wrap: break-word;
}
h1,
h2,
h3,
h4 {
  font-family: var(--heading-face);
  line-height: 1.2;
  text-wrap: balance;
  margin: var(--s5) 0 var(--s3);
}
h1 {
  font-size: var(--h1);
  margin-top: 0;
}
h2 {
  font-size: var(--h2);
}
h3 {
  font-size: var(--h3);
  margin: 0 0 var(--s1);
}
h4,
h5,
h6 {
  font-size: var(--h4);
  margin: var(--s3) 0 var(--s1);
}
p,
ul,
ol,
dl,
table,
figure,
blockquote,
pre {
  margin: 0 0 var(--s3);
}
p,
.rich-text > ul,
.rich-text > ol,
blockquote {
  max-width: 68ch;
}
a {
  color: var(--accent);
  text-underline-offset: 0.15em;
}
a:hover {
  text-decoration-thickness: 2px;
}
h1 a,
h2 a,
h3 a {
  color: inherit;
  text-decoration: none;
}
h1 a:hover,
h2 a:hover,
h3 a:hover {
  text-decoration: underline;
}
:focus-visible {
  outline: 3px solid var(--accent);
  outline-offset: 2px;
}
img {
  display: block;
  max-width: 100%;
  height: auto;
  border-radius: var(--radius);
}
figcaption,
.credit,
.byline,
.label {
  color: var(--muted);
  font-size: 0.88em;
}
table {
  border-collapse: collapse;
  display: block;
  overflow-x: auto;
}
th,
td {
  border-bottom: 1px solid var(--line);
  padding: var(--s1) var(--s4) var(--s1) 0;
  text-align: left;
  vertical-align: top;
}
th p,
td p {
  margin: 0;
}
pre {
  overflow-x: auto;
  padding: var(--s3);
  background: var(--raised);
  border-radius: var(--radius);
  font:
    0.9em/1.6 ui-monospace,
    Menlo,
    Consolas,
    monospace;
}
code {
  font-family: ui-monospace, Menlo, Consolas, monospace;
  font-size: 0.92em;
}
blockquote {
  padding-left: var(--s4);
  border-left: 4px solid var(--fill);
}
hr {
  border: 0;
  border-top: 1px solid var(--line);
  margin: var(--s5) 0;
}
.code-comment {
  color: var(--muted);
  font-style: italic;
}
.code-keyword,
.code-function,
.code-constant {
  color: var(--accent);
}
.summary,
.lead,
.intro {
  font-size: 1.15em;
}
.part,
.entry-part {
  margin: 0 0 var(--s3);
  padding: var(--s3) var(--s4);
  background: var(--raised);
  border-radius: var(--radius);
}
.part > :last-child,
.entry-part > :last-child {
  margin-bottom: 0;
}
.skip {
  position: absolute;
  left: -999px;
}
.skip:focus {
  left: 20px;
  top: 8px;
  padding: var(--s1) var(--s3);
  background: var(--ground);
}
`;
