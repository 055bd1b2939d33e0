import { z } from 'zod';

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

/** Families of type that every machine has, each with its CSS. */
export const FACES = {
  plain: { label: 'Plain', css: 'system-ui, "Segoe UI", Roboto, sans-serif' },
  grotesque: { label: 'Grotesque', css: '"Helvetica Neue", "Arial Nova", Arial, sans-serif' },
  humanist: { label: 'Humanist', css: 'Seravek, "Gill Sans Nova", Ubuntu, Calibri, sans-serif' },
  rounded: {
    label: 'Rounded',
    css: 'ui-rounded, "Hiragino Maru Gothic ProN", Quicksand, system-ui, sans-serif',
  },
  bookish: { label: 'Bookish', css: 'Charter, "Bitstream Charter", "Sitka Text", Cambria, serif' },
  oldStyle: {
    label: 'Old style',
    css: '"Iowan Old Style", "Palatino Linotype", "URW Palladio L", P052, serif',
  },
  machine: { label: 'Machine', css: 'ui-monospace, "Cascadia Code", Menlo, Consolas, monospace' },
} as const;
/** A family of type by its key. */
export type FaceKey = keyof typeof FACES;
const FACE_KEYS = Object.keys(FACES) as [FaceKey, ...FaceKey[]];

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

/** The style of a site: a starting style, and what is otherwise. */
export const lookSpec = z.strictObject({
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
  textFace: z.enum(FACE_KEYS).optional(),
  headingFace: z.enum(FACE_KEYS).optional(),
});
/** The style of a site as it is stored. */
export type Look = z.output<typeof lookSpec>;

/** In place of a path: the page of examples that a style is looked at on. */
export const EXAMPLES = 'examples';
