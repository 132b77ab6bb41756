import * as z from 'zod';

/**
 * What went wrong, for programs and people alike: RFC 9457 problem details. `title` says what
 * happened and `detail` what to do next, both in plain words.
 */
export const Problem = z.object({
  /** `urn:cuaderno:` and a code that stays the same. */
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string(),
});
export type Problem = z.infer<typeof Problem>;
