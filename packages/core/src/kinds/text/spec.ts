import * as z from 'zod';
import { MAX_TEXT, RichText, TEXT_FONTS } from '../../text/index.js';
import { Colour, commonTraits } from '../common.js';

const offset = z.number().min(-30_000).max(30_000);

/** Most lines of a text. */
const MAX_LINES = 2000;

/**
 * A text, on the page itself or on a slip. Where its words lie is part of it: they were broken into
 * lines where it was written, and lie alike on every screen and in every file.
 */
export const TextSpec = z.strictObject({
  kind: z.literal('text'),
  ...commonTraits,
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
