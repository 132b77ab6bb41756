import { ImportReportShape, SlideReport } from '@cuaderno/contract/import-report';
import * as z from 'zod';
import type { FontReport, ImportReport } from './report.js';

/** Reports as they were kept before fonts were told once each: by slide. */
const ByFormer = z.object({
  slides: z.number(),
  changed: z.array(
    SlideReport.extend({
      fonts: z.array(z.object({ asked: z.string(), used: z.string().nullable() })),
    }),
  ),
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
      .array(SlideReport)
      .parse(changed)
      .filter(({ flattened, hidden, media }) => flattened || hidden || media.length > 0),
  };
}
