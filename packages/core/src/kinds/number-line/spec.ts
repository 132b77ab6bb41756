import * as z from 'zod';
import { Colour, commonTraits } from '../common.js';

/** Largest number on a number line, and on the other side of zero. */
export const MAX_NUMBER = 1_000_000;
/** Most ticks: one at each step. */
export const MAX_TICKS = 400;
/** Most points, jumps and intervals, of each. */
export const MAX_MARKED = 60;

const Value = z.number().min(-MAX_NUMBER).max(MAX_NUMBER);

/** How ticks are labelled: at whole numbers only, as decimals, as fractions in lowest terms, or not at all. */
export const NUMBER_LABELS = ['whole', 'decimal', 'fraction', 'none'] as const;
export type NumberLabels = (typeof NUMBER_LABELS)[number];

/** A point on the line: filled where the number belongs to what is meant, open where it doesn't. */
const MarkedPoint = z.strictObject({ at: Value, open: z.boolean() });
export type MarkedPoint = z.infer<typeof MarkedPoint>;

/** A jump from one number to another, as in counting on. */
const Jump = z.strictObject({ from: Value, to: Value });
export type Jump = z.infer<typeof Jump>;

/** All numbers between two; `open` ends don't belong to it. */
const Interval = z.strictObject({
  from: Value,
  to: Value,
  openFrom: z.boolean(),
  openTo: z.boolean(),
});
export type Interval = z.infer<typeof Interval>;

/** A number line in its frame: ticks from one number to another, and what is marked on it. */
export const NumberLineSpec = z.strictObject({
  kind: z.literal('number-line'),
  ...commonTraits,
  /** Where its ticks begin and end; see `numberRange` for what holds where they are the wrong way round. */
  from: Value,
  to: Value,
  /** From tick to tick. */
  step: z
    .number()
    .positive()
    .max(2 * MAX_NUMBER),
  labels: z.enum(NUMBER_LABELS),
  /** Of the line, its ticks and numbers. */
  colour: Colour,
  /** Of points, jumps and intervals. */
  accent: Colour,
  points: z.array(MarkedPoint).max(MAX_MARKED),
  jumps: z.array(Jump).max(MAX_MARKED),
  intervals: z.array(Interval).max(MAX_MARKED),
});
export type NumberLineSpec = z.infer<typeof NumberLineSpec>;
