/** Together, a browser that knows no buttons of the style would know neither. */
const ROW_BUTTON = `width: 40px;
  height: 40px;
  margin: 0 var(--s2) var(--s3) 0;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  color: var(--ink);`;

/** Rules for what blocks draw, whatever the look: it gives the properties. */
export const BASE_BLOCKS = `
.site-header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s2) var(--s5);
  padding: var(--s4) var(--edge);
  margin: 0 calc(var(--edge) * -1) var(--s5);
  border-bottom: 1px solid var(--line);
}
.site-header a {
  text-decoration: none;
  color: inherit;
}
.site-header a:hover {
  text-decoration: underline;
}
.site-footer {
  margin-top: var(--s6);
  padding-top: var(--s3);
  border-top: 1px solid var(--line);
  color: var(--muted);
  font-size: 0.9em;
}
.menu ul {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s4);
  margin: 0;
  padding: 0;
  list-style: none;
}
.menu li > ul {
  flex-direction: column;
  padding: var(--s1) 0 0 var(--s3);
  font-size: 0.92em;
}
.menu [aria-current],
.menu .above {
  font-weight: 700;
}
.columns {
  display: grid;
  gap: var(--s5);
  margin-bottom: var(--s4);
}
.column > :first-child,
.grid > * > :first-child {
  margin-top: 0;
}
.column > :last-child,
.grid > * > :last-child {
  margin-bottom: 0;
}
.grid {
  display: grid;
  gap: var(--s4);
  margin-bottom: var(--s4);
}
.grid > * {
  margin: 0;
  min-width: 0;
}
[class*="space-"] > * {
  margin-block: 0;
}
.space-none > * + * {
  margin-top: 0;
}
.space-tight > * + * {
  margin-top: var(--s1);
}
.space-even > * + * {
  margin-top: var(--s3);
}
.space-wide > * + * {
  margin-top: var(--s5);
}
.grid.space-none {
  gap: 0;
}
.grid.space-tight {
  gap: var(--s2);
}
.grid.space-wide {
  gap: var(--s5);
}
.grid > * + * {
  margin-top: 0;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(260px, 100%), 1fr));
  gap: var(--s4);
  padding: 0;
  list-style: none;
}
.cards > li > :last-child {
  margin-bottom: 0;
}
.cards h3 {
  font-size: var(--h4);
}
.field-sheet {
  display: grid;
  grid-template-columns: minmax(110px, max-content) 1fr;
  gap: var(--s1) var(--s4);
}
.field-sheet dt {
  color: var(--muted);
}
.field-sheet dd {
  margin: 0;
}
.values ul {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s4);
  margin: 0 0 var(--s3);
  padding: 0;
  list-style: none;
}
.values ul ul {
  margin: 0;
  font-size: 0.9em;
}
.values a {
  display: inline-block;
  min-height: 24px;
}
.count {
  color: var(--muted);
}
.labels-above {
  display: block;
}
.labels-above dd {
  margin-bottom: var(--s2);
}
.labels-hidden {
  display: block;
}
.labels-hidden dt {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: nowrap;
}
.row-track {
  overflow-x: auto;
  scroll-snap-type: x proximity;
  padding-bottom: var(--s2);
}
.row-track .cards {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: min(280px, 80%);
  grid-template-columns: none;
  margin-bottom: 0;
}
.row-track .cards > li {
  scroll-snap-align: start;
}
.row-track::scroll-button(inline-start) {
  content: "←" / "Back";
}
.row-track::scroll-button(inline-end) {
  content: "→" / "Further";
}
.row-track::scroll-button(*) {
  ${ROW_BUTTON}
}
.row-button {
  ${ROW_BUTTON}
}
.row-button:disabled {
  opacity: 0.4;
}
@media (prefers-reduced-motion: no-preference) {
  .row-track {
    scroll-behavior: smooth;
  }
}
.row-stop {
  display: none;
}
@media (prefers-reduced-motion: no-preference) {
  .row-moves .row-stop {
    display: inline-flex;
    gap: var(--s1);
    align-items: center;
    min-height: 32px;
    margin-bottom: var(--s2);
  }
  .row-moves .row-track {
    container-type: inline-size;
  }
  .row-moves .cards {
    width: max-content;
    animation: row-on 40s ease-in-out infinite alternate;
  }
  .row-moves:hover .cards,
  .row-moves:focus-within .cards {
    animation-play-state: paused;
  }
  .row-moves:has(:checked) .cards {
    animation: none;
  }
}
@keyframes row-on {
  to {
    transform: translateX(min(0px, 100cqi - 100%));
  }
}
.cards:has(.card-line),
.cards:has(.card-row) {
  display: block;
}
.card-line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s1) var(--s4);
}
.card-row {
  display: grid;
  grid-template-columns: minmax(0, 2fr);
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  align-items: baseline;
  gap: var(--s1) var(--s4);
}
.card-line > *,
.card-row > * {
  margin: 0;
}
@media (max-width: 560px) {
  .card-row {
    display: block;
  }
}
.subjects ul,
.languages ul,
.page-links ul,
.breadcrumbs ol,
.beside ul,
.ways-on {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s3);
  padding: 0;
  list-style: none;
}
.breadcrumbs {
  color: var(--muted);
  font-size: 0.9em;
}
.breadcrumbs li + li::before {
  content: "/";
  margin-right: var(--s3);
}
.page-links {
  margin-top: var(--s5);
}
.page-links a {
  display: block;
  min-width: 32px;
  padding: var(--s1) var(--s3);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  text-align: center;
  text-decoration: none;
}
.page-links [aria-current] {
  background: var(--fill);
  color: var(--ink);
  font-weight: 700;
}
.beside ul {
  justify-content: space-between;
  margin-top: var(--s6);
  padding-top: var(--s3);
  border-top: 1px solid var(--line);
}
.beside .label {
  display: block;
}
.contents {
  padding: var(--s3) var(--s4);
  margin-bottom: var(--s4);
  background: var(--raised);
  border-radius: var(--radius);
}
.contents h2 {
  font-size: 1em;
  margin: 0 0 var(--s1);
}
.contents ul {
  margin: 0;
  padding-left: 1.2em;
}
.months {
  display: grid;
  grid-template-columns: repeat(12, 1fr);
  gap: 2px;
  max-width: 380px;
  margin-bottom: var(--s3);
  font-size: 11px;
  line-height: 20px;
  text-align: center;
}
.months i {
  background: var(--raised);
  font-style: normal;
}
.months .on {
  background: var(--accent);
  color: var(--ground);
}
.months .now {
  outline: 2px solid var(--ink);
}
.empty {
  color: var(--muted);
}
@media (min-width: 560px) {
  .grid {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
@media (min-width: 760px) {
  .grid-3 {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .grid-4,
  .grid-5,
  .grid-6 {
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
  .columns-2 {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  .columns-3 {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .columns-4,
  .columns-5,
  .columns-6 {
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
}
@media (min-width: 1000px) {
  .grid-5,
  .columns-5 {
    grid-template-columns: repeat(5, minmax(0, 1fr));
  }
  .grid-6,
  .columns-6 {
    grid-template-columns: repeat(6, minmax(0, 1fr));
  }
}
`;
