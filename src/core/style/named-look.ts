import { z } from 'zod';
import { COLOURS, type ColourName, type Colours } from './look-spec.ts';

/** What named styles are for. */
export const STYLED = {
  words: 'words',
  paragraph: 'paragraphs',
  picture: 'pictures',
  block: 'blocks of templates',
} as const;
/** What a named style is for. */
export type StyledSort = keyof typeof STYLED;

/** One choice of a property of named styles: its words, and its rules. */
interface Option {
  label: string;
  /** Declarations, the last one without its semicolon. */
  css: string;
}

/** One property of named styles. */
interface Property {
  label: string;
  on: readonly StyledSort[];
  options: Readonly<Record<string, Option>>;
}

const NAMES = Object.keys(COLOURS) as ColourName[];
const byColour = (css: (name: ColourName) => string): Record<string, Option> =>
  Object.fromEntries(NAMES.map((name) => [name, { label: COLOURS[name], css: css(name) }]));

const TEXTS = ['words', 'paragraph', 'block'] as const;
const BOXES = ['paragraph', 'picture', 'block'] as const;

/** Everything that a named style can say, each with its choices. */
export const NAMED_LOOK = {
  colour: { label: 'Colour', on: TEXTS, options: byColour((name) => `color: var(--${name})`) },
  ground: {
    label: 'Ground',
    on: ['words', 'paragraph', 'picture', 'block'],
    options: byColour((name) => `background: var(--${name})`),
  },
  size: {
    label: 'Size',
    on: TEXTS,
    options: {
      small: { label: 'Small', css: 'font-size: 0.88em' },
      large: { label: 'Large', css: 'font-size: 1.2em; line-height: 1.45' },
      huge: { label: 'Very large', css: 'font-size: 1.5em; line-height: 1.3' },
    },
  },
  weight: {
    label: 'Weight',
    on: TEXTS,
    options: {
      regular: { label: 'Regular', css: 'font-weight: 400' },
      strong: { label: 'Strong', css: 'font-weight: 700' },
    },
  },
  slant: {
    label: 'Slant',
    on: TEXTS,
    options: {
      upright: { label: 'Upright', css: 'font-style: normal' },
      slanted: { label: 'Slanted', css: 'font-style: italic' },
    },
  },
  face: {
    label: 'Type',
    on: TEXTS,
    options: {
      text: { label: 'As texts', css: 'font-family: var(--face)' },
      heading: { label: 'As headings', css: 'font-family: var(--heading-face)' },
    },
  },
  align: {
    label: 'Lines',
    on: ['paragraph', 'block'],
    options: {
      start: { label: 'From the start', css: 'text-align: start' },
      middle: { label: 'In the middle', css: 'text-align: center; margin-inline: auto' },
      end: { label: 'To the end', css: 'text-align: end; margin-inline-start: auto' },
    },
  },
  place: {
    label: 'Place',
    on: ['picture'],
    options: {
      start: {
        label: 'At the start, text around it',
        css: 'float: inline-start; max-width: 45%; margin: 0 var(--s4) var(--s3) 0',
      },
      middle: { label: 'In the middle', css: 'width: fit-content; margin-inline: auto' },
      end: {
        label: 'At the end, text around it',
        css: 'float: inline-end; max-width: 45%; margin: 0 0 var(--s3) var(--s4)',
      },
    },
  },
  width: {
    label: 'Width',
    on: BOXES,
    options: {
      narrow: { label: 'Narrow', css: 'max-width: 44ch' },
      lines: { label: 'As lines of text', css: 'max-width: 68ch' },
      whole: { label: 'All there is', css: 'max-width: none' },
    },
  },
  room: {
    label: 'Room within',
    on: BOXES,
    options: {
      close: { label: 'A little', css: 'padding: var(--s2) var(--s3)' },
      usual: { label: 'Some', css: 'padding: var(--s3) var(--s4)' },
      wide: { label: 'Much', css: 'padding: var(--s4) var(--s5)' },
    },
  },
  edge: {
    label: 'Edge',
    on: BOXES,
    options: {
      around: { label: 'All around', css: 'border: 1px solid var(--line)' },
      bar: { label: 'A bar at the start', css: 'border-inline-start: 4px solid var(--accent)' },
      above: { label: 'A rule above', css: 'border-block-start: 1px solid var(--line)' },
    },
  },
  corners: {
    label: 'Corners',
    on: ['words', 'paragraph', 'picture', 'block'],
    options: {
      square: { label: 'Square', css: 'border-radius: 0' },
      style: { label: 'As the style has them', css: 'border-radius: var(--radius)' },
      round: { label: 'Round', css: 'border-radius: 24px; overflow: clip' },
    },
  },
} as const satisfies Record<string, Property>;

type Name = keyof typeof NAMED_LOOK;
/** The properties with the choices of each as plain names. */
export const NAMED_PROPERTIES = Object.entries(NAMED_LOOK) as [Name, Property][];

/** What a named style looks like: a choice of each property, or nothing said. */
export const namedLookSpec = z.strictObject(
  Object.fromEntries(
    NAMED_PROPERTIES.map(([name, { options }]) => [
      name,
      z.enum(Object.keys(options) as [string, ...string[]]).optional(),
    ]),
  ) as Record<Name, z.ZodOptional<z.ZodEnum<Record<string, string>>>>,
);
/** What a named style looks like. */
export type NamedLook = z.output<typeof namedLookSpec>;

/** A named style, as its rules are made of it. */
export interface NamedStyle {
  key: string;
  on: StyledSort;
  look?: NamedLook | undefined;
}

/** The rules of the named styles that say what they look like. */
export function namedCss(styles: readonly NamedStyle[]): string {
  return styles.map(rulesOf).filter(Boolean).join('\n');
}

/** What has colours of its own, and takes that of a style around it. */
const COLOURED = ':is(a, h1, h2, h3, h4, dt, figcaption, .label, .credit, .byline)';

function rulesOf({ key, on, look = {} }: NamedStyle): string {
  const own = NAMED_PROPERTIES.flatMap(([name, property]) => {
    const choice = look[name];
    return choice !== undefined && property.on.includes(on) ? property.options[choice]!.css : [];
  });
  if (own.length === 0) return '';
  const within = look.colour ? `\n.style-${key} ${COLOURED} { color: inherit; }` : '';
  return `.style-${key} { ${own.join('; ')}; }${within}`;
}

/** What a named style's words are read on, where it says either; null where it says neither. */
export function readOn(
  { look }: Pick<NamedStyle, 'look'>,
  colours: Colours,
): [string, string] | null {
  if (!look?.colour && !look?.ground) return null;
  return [
    colours[(look.colour ?? 'ink') as ColourName],
    colours[(look.ground ?? 'ground') as ColourName],
  ];
}
