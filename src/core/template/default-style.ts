/** The style sheet of the pages of a design: its own, or the plain one. */
export function styleOf(css: string): string {
  return css.trim() === '' ? DEFAULT_STYLE : css;
}

/** The style sheet of sites that bring none: plain, readable, light and dark. */
const DEFAULT_STYLE = `:root { color-scheme: light dark; --line: #8886; }
* { box-sizing: border-box; }
body { margin: 0 auto; max-width: 1040px; padding: 0 24px 48px; font: 17px/28px system-ui, sans-serif; overflow-wrap: break-word; }
h1 { font-size: 40px; line-height: 48px; margin: 0 0 16px; text-wrap: balance; }
h2 { font-size: 22px; line-height: 28px; margin: 32px 0 12px; }
h3 { font-size: 18px; line-height: 24px; margin: 0; }
p { margin: 0 0 16px; max-width: 66ch; }
img { display: block; max-width: 100%; height: auto; }
figure { margin: 0 0 16px; }
table { border-collapse: collapse; margin: 0 0 16px; }
th, td { border: 1px solid var(--line); padding: 4px 12px; text-align: left; }
th p, td p { margin: 0; }
pre { overflow-x: auto; padding: 12px 16px; border: 1px solid var(--line); font: 15px/24px ui-monospace, monospace; }
.code-comment { color: light-dark(#59675f, #a5b1a9); font-style: italic; }
.code-keyword, .code-function { color: light-dark(#1b6b50, #7fd1b2); }
.code-string, .code-string-expression { color: light-dark(#8a5200, #e8b868); }
.code-constant, .code-parameter { color: light-dark(#7a3b8f, #d3a6e3); }
.part, .entry-part { margin: 0 0 16px; padding: 16px; border: 1px solid var(--line); }
.part > :last-child, .entry-part > :last-child { margin-bottom: 0; }
blockquote { margin: 0 0 16px; padding-left: 16px; border-left: 3px solid var(--line); }
:focus-visible { outline: 3px solid; outline-offset: 2px; }
.skip { position: absolute; left: -999px; }
.skip:focus { left: 24px; top: 8px; }
.site-header { padding: 20px 0; margin-bottom: 32px; border-bottom: 1px solid var(--line); font-weight: 600; }
.site-footer { margin-top: 48px; padding-top: 16px; border-top: 1px solid var(--line); font-size: 15px; }
.columns { display: grid; gap: 32px; }
.cards { display: grid; grid-template-columns: repeat(auto-fill, minmax(240px, 1fr)); gap: 24px; margin: 0 0 24px; padding: 0; list-style: none; }
.cards > li { border-top: 1px solid var(--line); padding-top: 12px; }
.field-sheet { display: grid; grid-template-columns: minmax(96px, max-content) 1fr; gap: 4px 24px; margin: 0 0 16px; }
.field-sheet dd { margin: 0; }
.items table { border-collapse: collapse; margin: 0 0 16px; }
.items th, .items td { text-align: left; padding: 4px 24px 4px 0; vertical-align: top; }
.subjects ul, .page-links ul, .breadcrumbs ol, .menu ul, .beside ul { display: flex; flex-wrap: wrap; gap: 8px 16px; margin: 0 0 16px; padding: 0; list-style: none; }
.breadcrumbs li + li::before { content: "/"; margin-right: 16px; color: GrayText; }
.menu ul { margin: 0; }
.menu li { position: relative; }
.menu li > ul { display: grid; gap: 4px; padding: 4px 0 0 16px; font-weight: 400; }
.menu [aria-current] { text-decoration: none; font-weight: 700; }
.beside ul { justify-content: space-between; margin-top: 32px; padding-top: 12px; border-top: 1px solid var(--line); }
.beside .label { display: block; font-size: 14px; }
.contents { margin: 0 0 24px; padding: 12px 16px; border: 1px solid var(--line); font-size: 15px; line-height: 24px; }
.contents h2 { margin: 0 0 4px; font-size: 15px; line-height: 24px; }
.contents ul { margin: 0; padding-left: 20px; }
.repeat > ul { padding-left: 20px; }
.page-links [aria-current] { font-weight: 700; text-decoration: none; }
.months { display: grid; grid-template-columns: repeat(12, 1fr); gap: 2px; max-width: 360px; margin-bottom: 16px; }
.months i { height: 12px; background: var(--line); }
.months .on { background: currentColor; }
.months .now { outline: 2px solid; }
@media (min-width: 760px) { .columns-2 { grid-template-columns: repeat(2, 1fr); } .columns-3 { grid-template-columns: repeat(3, 1fr); } .columns-4, .columns-5, .columns-6 { grid-template-columns: repeat(4, 1fr); } }
`;
