import type { Font } from './fonts.ts';
import type { Colours, ROOMS, StartKey } from './look-spec.ts';

/** Everything that a look says. */
export interface Tokens {
  light: Colours;
  dark: Colours;
  text: number;
  scale: number;
  room: keyof typeof ROOMS;
  width: number;
  radius: number;
  /** A type that machines have, or a font of the site's own. */
  textFace: string;
  headingFace: string;
  fonts?: readonly Font[];
}

/** A starting style: its words, its tokens, and the rules that are its own. */
export interface Start {
  label: string;
  doc: string;
  tokens: Tokens;
  css: string;
}

/** Square and sturdy: a band of ink at the top, thick rules, headings that weigh. */
const quarry: Start = {
  label: 'Quarry',
  doc: 'Square and sturdy: a dark band at the top, thick rules, heavy headings.',
  tokens: {
    light: {
      ...{ ground: '#ffffff', raised: '#f3f4f1', ink: '#16191c', muted: '#565d63' },
      ...{ accent: '#9a2c12', fill: '#f3c846', line: '#c9cdc8' },
    },
    dark: {
      ...{ ground: '#14171a', raised: '#1f2428', ink: '#eef0ec', muted: '#a9b1b5' },
      ...{ accent: '#ff9d7a', fill: '#6b5410', line: '#3b4247' },
    },
    ...{ text: 17, scale: 1.28, room: 'usual', width: 1120, radius: 0 },
    ...{ textFace: 'grotesque', headingFace: 'grotesque' },
  },
  css: `
h1,
h2,
h3 {
  font-weight: 800;
  letter-spacing: -0.015em;
}
h1 {
  padding-top: var(--s3);
  border-top: 8px solid var(--accent);
  display: inline-block;
  max-width: 100%;
}
.site-header {
  background: var(--ink);
  color: var(--ground);
  padding: var(--s3) var(--edge);
}
.site-header a {
  color: inherit;
}
.site-header > a:first-child,
.brand {
  font-weight: 800;
}
section > h2,
.listing > h2 {
  border-top: 4px solid var(--ink);
  padding-top: var(--s2);
}
.cards > li {
  background: var(--raised);
  border-left: 4px solid var(--accent);
  padding: var(--s3);
}
.subjects li {
  background: var(--fill);
  padding: 0 var(--s2);
}
`,
};

/** Soft and airy: everything in the middle, round corners, cards that lie on the ground. */
const meadow: Start = {
  label: 'Meadow',
  doc: 'Soft and airy: centred, round corners, white cards on a tinted ground.',
  tokens: {
    light: {
      ...{ ground: '#eef3fb', raised: '#ffffff', ink: '#1d2740', muted: '#52607d' },
      ...{ accent: '#2a52be', fill: '#d5e1fa', line: '#c5d1e8' },
    },
    dark: {
      ...{ ground: '#121826', raised: '#1c2436', ink: '#e8edf8', muted: '#a4b1cc' },
      ...{ accent: '#9db8ff', fill: '#2a3a63', line: '#35415c' },
    },
    ...{ text: 17, scale: 1.22, room: 'wide', width: 1040, radius: 16 },
    ...{ textFace: 'plain', headingFace: 'rounded' },
  },
  css: `
h1,
h2,
h3 {
  font-weight: 700;
}
h1 {
  color: var(--accent);
  text-align: center;
}
h1 + p {
  text-align: center;
  margin-inline: auto;
}
main > :is(.rich-text, .picture, .field-sheet, .contents, .byline) {
  max-width: 68ch;
  margin-inline: auto;
}
main > .picture img {
  margin-inline: auto;
}
.site-header {
  flex-direction: column;
  align-items: center;
  text-align: center;
}
.site-header > a:first-child,
.brand {
  font-size: 1.3em;
  font-weight: 700;
}
.menu > ul {
  justify-content: center;
}
.menu > ul > li > a {
  padding: var(--s1) var(--s3);
  border-radius: 999px;
  text-decoration: none;
}
.menu > ul > li > a[aria-current],
.menu > ul > li > a.above {
  background: var(--fill);
}
.cards > li {
  background: var(--raised);
  border-radius: var(--radius);
  padding: var(--s4);
  box-shadow: 0 1px 0 var(--line);
}
.cards > li > figure:first-child {
  margin: calc(var(--s4) * -1) calc(var(--s4) * -1) var(--s3);
}
.cards > li > figure:first-child img {
  border-radius: var(--radius) var(--radius) 0 0;
  width: 100%;
}
.subjects li {
  background: var(--fill);
  padding: 0 var(--s3);
  border-radius: 999px;
}
.site-footer {
  text-align: center;
}
.site-footer p {
  margin-inline: auto;
}
`,
};

/** Quiet and narrow: the header stands beside the text, cards are lines of a list. */
const lantern: Start = {
  label: 'Lantern',
  doc: 'Quiet and narrow: the header beside the text, cards as lines of a list.',
  tokens: {
    light: {
      ...{ ground: '#f0f1ec', raised: '#e4e7de', ink: '#23271f', muted: '#585f50' },
      ...{ accent: '#7d4a00', fill: '#e8d8b4', line: '#c4c9ba' },
    },
    dark: {
      ...{ ground: '#191b18', raised: '#252822', ink: '#e9e6da', muted: '#adaf9f' },
      ...{ accent: '#efb65a', fill: '#4c3a16', line: '#40443a' },
    },
    ...{ text: 18, scale: 1.2, room: 'usual', width: 980, radius: 4 },
    ...{ textFace: 'bookish', headingFace: 'bookish' },
  },
  css: `
h1,
h2,
h3 {
  font-weight: 500;
}
h1 {
  color: var(--accent);
}
.site-header {
  border: 0;
}
.site-header > a:first-child,
.brand {
  font-style: italic;
  font-size: 1.15em;
}
.cards {
  display: block;
}
.cards > li {
  display: flow-root;
  border-top: 1px solid var(--line);
  padding: var(--s3) 0;
}
.cards > li > figure {
  float: right;
  width: min(30%, 180px);
  margin: 0 0 var(--s2) var(--s4);
}
.subjects li + li::before {
  content: "·";
  margin-right: var(--s3);
  color: var(--muted);
}
@media (min-width: 900px) {
  body {
    display: grid;
    grid-template-columns: 200px minmax(0, 1fr);
    column-gap: var(--s6);
    align-items: start;
  }
  body > * {
    grid-column: 2;
  }
  body > .skip {
    position: absolute;
  }
  .site-header {
    grid-column: 1;
    grid-row: 1 / span 20;
    position: sticky;
    top: 0;
    flex-direction: column;
    gap: var(--s3);
    padding-top: var(--s5);
  }
  .menu > ul {
    flex-direction: column;
    gap: var(--s1);
  }
  main {
    padding-top: var(--s5);
  }
}
`,
};

/** The starting styles by their keys. */
export const START: Readonly<Record<StartKey, Start>> = { quarry, meadow, lantern };
