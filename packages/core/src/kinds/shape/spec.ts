import * as z from 'zod';
import { Colour, commonTraits, Part } from '../common.js';

/** Most corners of a polygon. */
export const MAX_CORNERS = 200;

/** A line, an arrow, or a shape with an outline and an inside. */
export const ShapeSpec = z.strictObject({
  kind: z.literal('shape'),
  ...commonTraits,
  shape: z.enum(['line', 'box', 'ellipse', 'triangle', 'polygon']),
  /**
   * Ends of a line or corners of a polygon, in parts of the frame from its top left; other shapes
   * are drawn into their frame.
   */
  points: z
    .array(z.tuple([Part, Part]))
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
