import * as z from 'zod';
import { FileHash } from '../../id/index.js';
import { commonTraits, Part } from '../common.js';

/** A picture, of a stored file. */
export const PictureSpec = z.strictObject({
  kind: z.literal('picture'),
  ...commonTraits,
  file: FileHash,
  /** The part of it that is shown, in parts of its width and height; all of it where `null`. */
  crop: z
    .object({ x: Part, y: Part, width: Part, height: Part })
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
