import * as z from 'zod';
import { Colour, commonTraits } from '../common.js';

/**
 * A cover sheet: laid over a part of a page to write on. What is written on it names it, is lifted
 * with it, and comes back with it.
 */
export const CoverSpec = z.strictObject({
  kind: z.literal('cover'),
  ...commonTraits,
  layer: z.literal('ink'),
  /** What is written on it would be seen without it. */
  hidden: z.literal(false).optional(),
  tint: Colour,
  /** Taken off for now, with what is written on it. */
  lifted: z.boolean().optional(),
});
export type CoverSpec = z.infer<typeof CoverSpec>;
