import { z } from 'zod';
import { FileHash, Id } from '../id/index.js';
import { OrderKey } from '../order/index.js';
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

/** A thing that is laid on a page: everything on it but ink and paper. */
export const ThingSpec = z.discriminatedUnion('kind', [PictureSpec, ShapeSpec, MarkSpec]);
export type ThingSpec = z.infer<typeof ThingSpec>;

/** What a thing has where it says nothing of it. */
export const UNSAID = { fixed: false, held: false, group: null, crop: null, alt: '' } as const;
