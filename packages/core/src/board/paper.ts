import * as z from 'zod';
import { FileHash } from '../id/index.js';
import { isReadableTint } from '../ink/index.js';

const coordinate = z.number().min(-1_000_000).max(1_000_000);

/** One millimetre in points. */
export const MM = 72 / 25.4;

/** Nearest and farthest that lines of a paper may lie apart, in points: 2 mm and 60 mm. */
export const MIN_SPACING = 2 * MM;
export const MAX_SPACING = 60 * MM;

const spacing = z.number().min(MIN_SPACING).max(MAX_SPACING);
/** `#rrggbb`; whites out of which ink could not be read are not taken. */
const tint = z
  .string()
  .regex(/^#[0-9a-f]{6}$/, { error: 'a tint is written as #rrggbb', abort: true })
  .refine(isReadableTint, 'ink could not be read on this tint')
  .optional();

/** A paper of our own, which is drawn from a display list. Lengths in points. */
export const DrawnPaper = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('plain'), tint }),
  /** Lines to write on, `spacing` apart. */
  z.strictObject({ kind: z.literal('ruled'), spacing, tint }),
  z.strictObject({ kind: z.literal('squared'), spacing, tint }),
  z.strictObject({ kind: z.literal('dotted'), spacing, tint }),
  /** Guide lines for handwriting; `spacing` is the height of a small letter. */
  z.strictObject({ kind: z.literal('guides'), spacing, tint }),
  /** Music staves; `spacing` is the height of a staff, from its lowest line to its highest. */
  z.strictObject({ kind: z.literal('staves'), spacing, tint }),
]);
export type DrawnPaper = z.infer<typeof DrawnPaper>;

/** What a page is printed with, under everything that is laid or written on it. */
export const Paper = z.discriminatedUnion('kind', [
  ...DrawnPaper.options,
  z.strictObject({
    kind: z.literal('pdf'),
    file: FileHash,
    /** Number of the page in the file, from 1. */
    number: z.number().int().min(1).max(100_000),
    /** Visible part in the PDF's user space; see `PdfPlacement`. */
    box: z.tuple([coordinate, coordinate, coordinate, coordinate]),
    rotate: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
    unit: z.number().positive().max(10_000),
    tint,
  }),
]);
export type Paper = z.infer<typeof Paper>;
export type PdfPaper = Extract<Paper, { kind: 'pdf' }>;

/** Smallest and largest side of a page, in points: a stamp, and 200 inches (ISO 32000-1, annex C). */
export const MIN_SIDE = 3;
export const MAX_SIDE = 14_400;

/** A side of a page, in points. */
export const Side = z.number().min(MIN_SIDE).max(MAX_SIDE);

export interface PageSize {
  readonly width: number;
  readonly height: number;
}

/** A paper of our own and its size, as empty pages are taken from a pad. Lengths in points. */
export const Sheet = z.strictObject({ paper: DrawnPaper, width: Side, height: Side });
export type Sheet = z.infer<typeof Sheet>;

/** A4 upright (ISO 216: 210 mm × 297 mm), in points. */
export const A4: PageSize = { width: 210 * MM, height: 297 * MM };

/**
 * Sizes of pages, upright or as wide as a screen, in points: A4 (ISO 216), Letter (8.5 × 11 inches,
 * ANSI/ASME Y14.1 size A), and screens 7.5 inches high (16:9 is 13⅓ inches wide, ECMA-376's
 * 12,192,000 × 6,858,000 units of 914,400 to the inch).
 */
export const PAGE_SIZES = [
  { name: 'a4', label: 'A4', ...A4 },
  { name: 'letter', label: 'Letter', width: 612, height: 792 },
  { name: 'wide', label: 'Wide screen, 16:9', width: 960, height: 540 },
  { name: 'screen', label: 'Screen, 4:3', width: 720, height: 540 },
  { name: 'square', label: 'Square', width: 600, height: 600 },
] as const;

/** Spacings that are offered, in mm; practice: no published source but for the staves. */
export const SPACINGS = {
  /** Narrow, common, wide, and for first writers. */
  ruled: [6, 8, 10, 14],
  squared: [4, 5, 7, 10, 20],
  dotted: [5, 7, 10],
  guides: [3, 4, 6, 9],
  /** Heights of staves, from a score's to a beginner's; practice, from memory. */
  staves: [6, 7, 8, 12],
} as const;
