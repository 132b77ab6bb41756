import * as z from 'zod';

/** Characters of a text at most: a long lesson plan is a tenth of it. */
export const MAX_TEXT = 20_000;

const Run = z.strictObject({
  text: z.string().min(1).max(MAX_TEXT),
  bold: z.boolean().optional(),
  slant: z.boolean().optional(),
});
/** Words that look alike. */
export type Run = z.infer<typeof Run>;

const Paragraph = z.strictObject({
  /** What stands before it: nothing, a dot, or its number among its neighbours. */
  list: z.enum(['dots', 'numbers']).optional(),
  runs: z.array(Run).max(2000),
});
export type Paragraph = z.infer<typeof Paragraph>;

/** A text in paragraphs, with weight and slant: plain data, whatever wrote or shows it. */
export const RichText = z
  .array(Paragraph)
  .max(2000)
  .refine((paragraphs) => plainText(paragraphs).length <= MAX_TEXT, 'that text is too long');
export type RichText = z.infer<typeof RichText>;

/** Its words alone, a line for each paragraph. */
export function plainText(text: readonly Paragraph[]): string {
  return text.map(({ runs }) => runs.map((run) => run.text).join('')).join('\n');
}

/** Whether anything is written in it. */
export function isBlank(text: readonly Paragraph[]): boolean {
  return plainText(text).trim() === '';
}
