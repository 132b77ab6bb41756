import * as z from 'zod';
import { Colour, commonTraits } from '../common.js';

/** Marks as teachers write them in the margin of work. */
export const MARKS = ['tick', 'cross', 'star', 'question', 'attention', 'heart'] as const;
export type MarkName = (typeof MARKS)[number];

export const MarkSpec = z.strictObject({
  kind: z.literal('mark'),
  ...commonTraits,
  mark: z.enum(MARKS),
  colour: Colour,
});
export type MarkSpec = z.infer<typeof MarkSpec>;
