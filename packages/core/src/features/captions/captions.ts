import * as z from 'zod';
import { Id } from '../../id/index.js';
import { oneLine } from '../../text/index.js';

/** Longest line of captions, in characters as people count them: about as much as is read in ten seconds. */
export const MAX_CAPTION = 200;

/** A line of what is said in a lesson, as somebody types it. */
export const CaptionText = z
  .string()
  .max(4 * MAX_CAPTION)
  .transform(oneLine)
  .refine((text) => text.length > 0 && [...text].length <= MAX_CAPTION);

/** It, as it is kept with the lesson. */
export const Caption = z.object({
  id: Id,
  /** Who typed it. */
  by: Id,
  text: z.string(),
  /** When typing it began, and when it was done, in ms since 1970 by the server's clock. */
  from: z.number(),
  at: z.number(),
});
export type Caption = z.infer<typeof Caption>;

/** Where a sentence, a part of one, or at least a word ends. */
const ENDS = [/[.!?…。！？]["'”’»)]*(\s|$)/gu, /[,;:–—、，；：]\s?/gu, /\s+/gu];

/**
 * Splits what is being typed, where it is longer than a line may be, into the line that is done and what goes on; at the
 * end of a sentence if there is one in its second half, else of a part of one, else of a word. `null` while it is short enough.
 */
export function splitCaption(
  typed: string,
): { readonly line: string; readonly rest: string } | null {
  const letters = [...typed];
  if (letters.length <= MAX_CAPTION) return null;
  const most = letters.slice(0, MAX_CAPTION).join('');
  for (const end of ENDS) {
    const places = [...most.matchAll(end)].map(({ index, 0: found }) => index + found.length);
    const at = places.filter((place) => place > most.length / 2).at(-1);
    if (at !== undefined) return { line: most.slice(0, at), rest: typed.slice(at) };
  }
  return { line: most, rest: typed.slice(most.length) };
}

/** How long a word takes to be read, and the shortest that a line stands, in ms: 160 words a minute (common practice of subtitling, from memory). */
const WORD = 375;
const SHORTEST = 1000;

/** How long a line stands to be read, in ms. */
export function readingTime(text: string): number {
  const words = [...new Intl.Segmenter(undefined, { granularity: 'word' }).segment(text)].filter(
    ({ isWordLike }) => isWordLike,
  ).length;
  return Math.max(SHORTEST, words * WORD);
}

/** A line as it stands in a record: from when to when, in ms since 1970. */
export interface CaptionCue {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/** When each line is shown, of all of a lesson in order of time: until it is read, and no longer than until the next one. */
export function captionCues(
  captions: readonly Pick<Caption, 'text' | 'from' | 'at'>[],
): readonly CaptionCue[] {
  return captions.map(({ text, from, at }, i) => {
    const read = Math.max(at, from + readingTime(text));
    const next = captions[i + 1]?.from ?? Infinity;
    return { from, to: next > from ? Math.min(read, next) : read, text };
  });
}
