import * as z from 'zod';

/** Largest stroke in bytes: 20,000 points, coded as badly as can be, are fewer. */
export const MAX_INK_BYTES = 200_000;

/** A coded stroke, not looked into yet: see `ink/codec.ts`. */
export const InkBytes = z.custom<Uint8Array>(
  (value) => value instanceof Uint8Array && value.length <= MAX_INK_BYTES,
  'ink is at most 200,000 bytes',
);
