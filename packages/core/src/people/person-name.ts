import * as z from 'zod';
import { oneLine } from '../text/one-line.js';

/** Longest name a person may have, in characters as people count them. */
export const MAX_NAME = 60;

/** A first name in any script: trimmed, composed (Unicode NFC), without characters nobody sees. */
export const PersonName = z
  .string()
  .max(10 * MAX_NAME, `That name is too long. Use at most ${MAX_NAME} letters.`)
  .transform(oneLine)
  .refine((name) => name.length > 0, 'Please write your first name.')
  .refine(
    (name) => [...name].length <= MAX_NAME,
    `That name is too long. Use at most ${MAX_NAME} letters.`,
  );
