import { z } from 'zod';

/** SHA-256 of a stored file, as 64 hexadecimal digits. */
export const FileHash = z.string().regex(/^[0-9a-f]{64}$/, 'a file hash has 64 hexadecimal digits');
export type FileHash = z.infer<typeof FileHash>;

const coordinate = z.number().min(-1_000_000).max(1_000_000);

/** What a page is printed with, under everything that is laid or written on it. */
export const Paper = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('plain') }),
  z.object({
    kind: z.literal('pdf'),
    file: FileHash,
    /** Number of the page in the file, from 1. */
    number: z.number().int().min(1).max(100_000),
    /** Visible part in the PDF's user space; see `PdfPlacement`. */
    box: z.tuple([coordinate, coordinate, coordinate, coordinate]),
    rotate: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
    unit: z.number().positive().max(10_000),
  }),
]);
export type Paper = z.infer<typeof Paper>;
export type PdfPaper = Extract<Paper, { kind: 'pdf' }>;

/** Smallest and largest side of a page, in points: a stamp, and 200 inches (ISO 32000-1, annex C). */
export const MIN_SIDE = 3;
export const MAX_SIDE = 14_400;

/** A4 upright (ISO 216: 210 mm × 297 mm), in points. */
export const A4 = { width: (210 / 25.4) * 72, height: (297 / 25.4) * 72 };
