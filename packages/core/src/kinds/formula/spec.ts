import * as z from 'zod';
import { Colour, commonTraits } from '../common.js';

/** Longest source of a formula, in characters. */
export const MAX_FORMULA = 2000;
/** Longest outline of a formula, in characters: a full page of letters is a fifth of it. */
const MAX_OUTLINE = 400_000;
/** Longest reading of a formula in words, in characters: longer ones nobody listens to. */
export const MAX_FORMULA_WORDS = 8000;

/**
 * A formula, with the outlines of its letters: they were set where it was written, and are drawn
 * alike on every screen and in every file, without fonts.
 */
export const FormulaSpec = z.strictObject({
  kind: z.literal('formula'),
  ...commonTraits,
  source: z.string().max(MAX_FORMULA),
  /** LaTeX, or as it is typed on a keyboard: `sqrt(x^2+1)/2`. */
  notation: z.enum(['latex', 'typed']),
  colour: Colour,
  /** Path data, see `readPathData`, in thousandths of the size of letters, from the top left. */
  outline: z.string().max(MAX_OUTLINE),
  /** What the outline takes up, in its own units. */
  box: z.strictObject({ width: z.number().min(1).max(1e6), height: z.number().min(1).max(1e6) }),
  /** How it is read aloud, as “the square root of x”; empty or absent where it couldn’t be put into words. */
  words: z.string().max(MAX_FORMULA_WORDS).optional(),
});
export type FormulaSpec = z.infer<typeof FormulaSpec>;
