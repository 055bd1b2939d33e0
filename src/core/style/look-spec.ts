import { z } from 'zod';
import { FACES } from './faces.ts';
import { fontSpec } from './fonts.ts';

/** Starting styles: what a site looks like of which nothing else is said. */
export const STARTS = ['quarry', 'meadow', 'lantern'] as const;
/** A starting style by its key. */
export type StartKey = (typeof STARTS)[number];

/** What colours are for, each with its words. */
export const COLOURS = {
  ground: 'Ground',
  raised: 'Ground of cards',
  ink: 'Text',
  muted: 'Quiet text',
  accent: 'Links and headings',
  fill: 'Filled places',
  line: 'Rules and edges',
} as const;
/** What a colour is for. */
export type ColourName = keyof typeof COLOURS;
/** Colours by what they are for: `#rrggbb`. */
export type Colours = Record<ColourName, string>;

/** How much room there is between things, by its factor. */
export const ROOMS = { close: 0.75, usual: 1, wide: 1.4 } as const;
const ROOM_KEYS = Object.keys(ROOMS) as [keyof typeof ROOMS, ...(keyof typeof ROOMS)[]];

const colour = z.string().regex(/^#[0-9a-f]{6}$/, 'A colour is "#" and six digits or letters a–f.');
const colours = z
  .strictObject(
    Object.fromEntries(Object.keys(COLOURS).map((name) => [name, colour.optional()])) as Record<
      ColourName,
      z.ZodOptional<typeof colour>
    >,
  )
  .optional();

/** Type: one that machines have, or the name of a font of the site's own. */
const face = z.string().max(60).optional();
const FONT_FILES = 24;

/** The style of a site: a starting style, and what is otherwise. */
export const lookSpec = z
  .strictObject({
    start: z.enum(STARTS).default('quarry'),
    /** By day, and where a visitor's machine asks for dark. */
    light: colours,
    dark: colours,
    /** Of running text, px. */
    text: z.int().min(14).max(22).optional(),
    /** How much larger each step of headings is. */
    scale: z.number().min(1.1).max(1.5).optional(),
    room: z.enum(ROOM_KEYS).optional(),
    /** Of the page, px. */
    width: z.int().min(560).max(1600).optional(),
    /** Of corners, px. */
    radius: z.int().min(0).max(32).optional(),
    /** Fonts of the site's own. */
    fonts: z
      .array(fontSpec)
      .max(FONT_FILES, `A site has at most ${FONT_FILES} files of fonts.`)
      .optional(),
    textFace: face,
    headingFace: face,
  })
  .superRefine(({ fonts = [], ...faces }, { addIssue }) => {
    for (const name of ['textFace', 'headingFace'] as const) {
      const chosen = faces[name];
      if (chosen === undefined || Object.hasOwn(FACES, chosen)) continue;
      if (fonts.some((font) => font.name === chosen)) continue;
      const known = [...Object.keys(FACES), ...fonts.map((font) => font.name)].join(', ');
      addIssue({
        code: 'custom',
        path: [name],
        message: `There is no type "${chosen}". There are: ${known}.`,
      });
    }
  });
/** The style of a site as it is stored. */
export type Look = z.output<typeof lookSpec>;

/** In place of a path: the page of examples that a style is looked at on. */
export const EXAMPLES = 'examples';
