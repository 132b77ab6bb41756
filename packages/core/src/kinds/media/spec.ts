import * as z from 'zod';
import { FileHash } from '../../id/index.js';
import { commonTraits, Part } from '../common.js';

/** Most peaks of a sound that are drawn. */
export const MAX_PEAKS = 120;

/** A sound or a film, of a stored file. It is played where it lies. */
export const MediaSpec = z.strictObject({
  kind: z.literal('media'),
  ...commonTraits,
  medium: z.enum(['sound', 'film']),
  file: FileHash,
  /** What the file was called. */
  name: z.string().max(200),
  /** How long it plays, in seconds; `null` where the file doesn't say. */
  length: z.number().min(0).max(1e6).nullable(),
  /** A picture of a film, shown until it plays. */
  poster: FileHash.nullable().optional(),
  /** How loud a sound is along its length, from 0 to 1. */
  peaks: z.array(Part).max(MAX_PEAKS).optional(),
});
export type MediaSpec = z.infer<typeof MediaSpec>;
