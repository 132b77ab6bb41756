import * as z from 'zod';
import { FileHash, Id } from '../id/index.js';
import { OrderKey } from '../order/index.js';
import { MAX_TEXT, RichText } from '../text/index.js';
import { Frame } from './frame.js';

/** `#rrggbb` */
export const Colour = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is written as #rrggbb');

/** What every thing on a page has, whatever it is. */
const common = {
  frame: Frame,
  /** Its place among the things of its page: what comes later lies on top. */
  order: OrderKey,
  /** Material lies under the ink; what is written with other tools than the pen lies with it. */
  layer: z.enum(['material', 'ink']),
  /** Fixed in place: it isn't moved or changed by accident. */
  fixed: z.boolean().optional(),
  /** Held back: no student is sent it. */
  held: z.boolean().optional(),
  /** Things of one group are chosen and moved together. */
  group: Id.nullable().optional(),
  /** The cover sheet that it was written on; on the page itself where `null`. */
  on: Id.nullable().optional(),
};

const part = z.number().min(0).max(1);

/** A picture, of a stored file. */
export const PictureSpec = z.strictObject({
  kind: z.literal('picture'),
  ...common,
  file: FileHash,
  /** The part of it that is shown, in parts of its width and height; all of it where `null`. */
  crop: z
    .object({ x: part, y: part, width: part, height: part })
    .refine(
      ({ x, y, width, height }) =>
        width > 0 && height > 0 && x + width <= 1.0001 && y + height <= 1.0001,
    )
    .nullable()
    .optional(),
  /** What is to be seen on it, for who can't see it. */
  alt: z.string().max(500).optional(),
});
export type PictureSpec = z.infer<typeof PictureSpec>;

/** Most corners of a polygon. */
export const MAX_CORNERS = 200;

/** A line, an arrow, or a figure with an outline and an inside. */
export const ShapeSpec = z.strictObject({
  kind: z.literal('shape'),
  ...common,
  shape: z.enum(['line', 'box', 'ellipse', 'triangle', 'polygon']),
  /**
   * Ends of a line or corners of a polygon, in parts of the frame from its top left; other figures
   * are drawn into their frame.
   */
  points: z
    .array(z.tuple([part, part]))
    .min(2)
    .max(MAX_CORNERS)
    .optional(),
  /** Heads of a line: at its last end, or at both. */
  heads: z.enum(['none', 'end', 'both']).optional(),
  /** The outline; `null` for none. Width in points. */
  outline: z
    .object({
      colour: Colour,
      width: z.number().min(0.25).max(100),
      dashed: z.boolean().optional(),
    })
    .nullable(),
  fill: Colour.nullable(),
});
export type ShapeSpec = z.infer<typeof ShapeSpec>;

/** Marks as teachers write them in the margin of work. */
export const MARKS = ['tick', 'cross', 'star', 'question', 'look', 'heart'] as const;
export type MarkName = (typeof MARKS)[number];

export const MarkSpec = z.strictObject({
  kind: z.literal('mark'),
  ...common,
  mark: z.enum(MARKS),
  colour: Colour,
});
export type MarkSpec = z.infer<typeof MarkSpec>;

/** Fonts of texts: for reading, for titles, and for readers who mix up letters. */
export const TEXT_FONTS = ['plain', 'title', 'dyslexic'] as const;
export type TextFont = (typeof TEXT_FONTS)[number];

/** What the fonts are called that ship with Cuaderno. */
export const FONT_NAMES: Readonly<Record<TextFont, string>> = {
  plain: 'Atkinson Hyperlegible Next',
  title: 'Literata',
  dyslexic: 'OpenDyslexic',
};

/** Fonts for scripts that none of those has, in the order in which letters are looked for. */
export const SCRIPT_FONT_NAMES = [
  'Noto Sans Hebrew',
  'Noto Sans Arabic',
  'Noto Sans Devanagari',
  'Noto Sans Thai',
] as const;

const offset = z.number().min(-30_000).max(30_000);

/** Most lines of a text. */
const MAX_LINES = 2000;

/**
 * A text, on the page itself or on a slip. Where its words lie is part of it: they were broken into
 * lines where it was written, and lie alike on every screen and in every file.
 */
export const TextSpec = z.strictObject({
  kind: z.literal('text'),
  ...common,
  text: RichText,
  font: z.enum(TEXT_FONTS),
  /** In points. */
  size: z.number().min(2).max(1000),
  colour: Colour,
  align: z.enum(['start', 'middle', 'end']),
  /** The slip's colour; `null` where the words stand on the page itself. */
  slip: Colour.nullable(),
  /** Lines in points from the frame's top left; see `PlacedLine`. */
  lines: z
    .array(
      z.strictObject({
        y: offset,
        runs: z
          .array(
            z.strictObject({
              text: z.string().max(MAX_TEXT),
              x: offset,
              width: z.number().min(0).max(30_000),
              bold: z.boolean().optional(),
              slant: z.boolean().optional(),
              rtl: z.boolean().optional(),
            }),
          )
          .max(200),
      }),
    )
    .max(MAX_LINES),
});
export type TextSpec = z.infer<typeof TextSpec>;

/** Space between a slip's edge and its words, in points. */
export const SLIP_EDGE = 10;

/** Longest source of a formula, in characters. */
export const MAX_FORMULA = 2000;
/** Longest outline of a formula, in characters: a full page of letters is a fifth of it. */
const MAX_OUTLINE = 400_000;

/**
 * A formula, with the outlines of its letters: they were set where it was written, and are drawn
 * alike on every screen and in every file, without fonts.
 */
export const FormulaSpec = z.strictObject({
  kind: z.literal('formula'),
  ...common,
  source: z.string().max(MAX_FORMULA),
  /** LaTeX, or as it is typed on a keyboard: `sqrt(x^2+1)/2`. */
  notation: z.enum(['latex', 'typed']),
  colour: Colour,
  /** Path data, see `readPathData`, in thousandths of the size of letters, from the top left. */
  outline: z.string().max(MAX_OUTLINE),
  /** What the outline takes up, in its own units. */
  box: z.strictObject({ width: z.number().min(1).max(1e6), height: z.number().min(1).max(1e6) }),
});
export type FormulaSpec = z.infer<typeof FormulaSpec>;

/** Most peaks of a sound that are drawn. */
export const MAX_PEAKS = 120;

/** A sound or a film, of a stored file. It is played where it lies. */
export const MediaSpec = z.strictObject({
  kind: z.literal('media'),
  ...common,
  medium: z.enum(['sound', 'film']),
  file: FileHash,
  /** What the file was called. */
  name: z.string().max(200),
  /** How long it plays, in seconds; `null` where the file doesn't say. */
  length: z.number().min(0).max(1e6).nullable(),
  /** A picture of a film, shown until it plays. */
  poster: FileHash.nullable().optional(),
  /** How loud a sound is along its length, from 0 to 1. */
  peaks: z.array(part).max(MAX_PEAKS).optional(),
});
export type MediaSpec = z.infer<typeof MediaSpec>;

/**
 * A cover sheet: laid over a part of a page to write on. What is written on it names it, is lifted
 * with it, and comes back with it.
 */
export const CoverSpec = z.strictObject({
  kind: z.literal('cover'),
  ...common,
  layer: z.literal('ink'),
  /** What is written on it would be seen without it. */
  held: z.literal(false).optional(),
  tint: Colour,
  /** Taken off for now, with what is written on it. */
  lifted: z.boolean().optional(),
});
export type CoverSpec = z.infer<typeof CoverSpec>;

/** A thing that is laid on a page: everything on it but ink and paper. */
export const ThingSpec = z.discriminatedUnion('kind', [
  PictureSpec,
  ShapeSpec,
  MarkSpec,
  TextSpec,
  FormulaSpec,
  MediaSpec,
  CoverSpec,
]);
export type ThingSpec = z.infer<typeof ThingSpec>;

/** Stored files that a thing is made of. */
export function filesOf(thing: ThingSpec): FileHash[] {
  if (thing.kind === 'picture') return [thing.file];
  if (thing.kind === 'media') return thing.poster ? [thing.file, thing.poster] : [thing.file];
  return [];
}

/** What a thing has where it says nothing of it. */
export const UNSAID = {
  fixed: false,
  held: false,
  group: null,
  on: null,
  lifted: false,
  crop: null,
  alt: '',
} as const;
