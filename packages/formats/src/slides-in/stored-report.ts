import * as z from 'zod';
import type { FontReport, ImportReport } from './report.js';

const Slide = z.object({
  number: z.number(),
  title: z.string(),
  letters: z.array(z.string()).default([]),
  flattened: z.boolean(),
  hidden: z.boolean(),
  notes: z.boolean(),
  media: z.array(z.object({ name: z.string(), problem: z.string().nullable() })),
});

/** Reports as they were kept before fonts were told once each: by slide. */
const ByFormer = z.object({
  slides: z.number(),
  changed: z.array(
    Slide.extend({
      fonts: z.array(z.object({ asked: z.string(), used: z.string().nullable() })),
    }),
  ),
});

export const ImportReportShape = z.object({
  slides: z.number(),
  named: z.number().nullable(),
  noted: z.number().nullable(),
  fonts: z.array(z.object({ asked: z.string(), used: z.string(), slides: z.array(z.number()) })),
  changed: z.array(Slide),
});

/** A report that was kept, also by an earlier version. Throws where it is none. */
export function readReport(kept: unknown): ImportReport {
  const now = ImportReportShape.safeParse(kept);
  if (now.success) return now.data;
  const { slides, changed } = ByFormer.parse(kept);
  const fonts = new Map<string, FontReport>();
  for (const slide of changed)
    for (const { asked, used } of slide.fonts) {
      if (used === null) continue;
      const known = fonts.get(asked)?.slides ?? [];
      fonts.set(asked, { asked, used, slides: [...known, slide.number] });
    }
  return {
    slides,
    named: null,
    noted: null,
    fonts: [...fonts.values()],
    changed: z
      .array(Slide)
      .parse(changed)
      .filter(({ flattened, hidden, media }) => flattened || hidden || media.length > 0),
  };
}
