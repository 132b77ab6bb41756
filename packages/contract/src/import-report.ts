import * as z from 'zod';

/** What changed about one slide when it became a page. */
export const SlideReport = z.object({
  number: z.number(),
  title: z.string(),
  letters: z.array(z.string()).default([]),
  flattened: z.boolean(),
  hidden: z.boolean(),
  notes: z.boolean(),
  media: z.array(z.object({ name: z.string(), problem: z.string().nullable() })),
});

/** What changed when slides became a board. */
export const ImportReportShape = z.object({
  slides: z.number(),
  named: z.number().nullable(),
  noted: z.number().nullable(),
  fonts: z.array(z.object({ asked: z.string(), used: z.string(), slides: z.array(z.number()) })),
  changed: z.array(SlideReport),
});
