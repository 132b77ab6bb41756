import type { Rect } from '@cuaderno/core/geometry';
import { screenFont } from './screen-font';

/** How what is printed on a page stands: on it, on its way for a while (or its letters are), or not to be had just now. */
export type PrintWords = 'here' | 'letters' | 'coming' | 'failed';

/** What is said of it. */
export const PRINT_WORDS: Record<PrintWords, string> = {
  here: '',
  letters: 'Some letters of this page are still coming…',
  coming: 'This page is still coming…',
  failed: 'This page can’t be fetched just now. It is tried again until it comes.',
};

/** A page on which nothing is printed yet looks like none that is empty. */
export const UNPRINTED = '#f7f2e7';

/** Size of the words, and of the room around them, in CSS px. */
const SIZE = 17;
const ROOM = 12;

/**
 * Says on a page that its print isn't there yet, in the middle of what is seen of it; that letters aren't, above
 * them.
 * @param seen in points
 * @param zoom CSS px a point
 */
export function formatPrint(
  context: CanvasRenderingContext2D,
  print: PrintWords,
  seen: Rect,
  zoom: number,
): void {
  context.save();
  const down = print === 'letters' ? (2 * SIZE) / zoom : seen.height / 2;
  context.translate(seen.x + seen.width / 2, seen.y + down);
  context.scale(1 / zoom, 1 / zoom);
  context.font = screenFont(600, SIZE);
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  const lines = inLines(context, PRINT_WORDS[print], seen.width * zoom - 2 * ROOM);
  const width = Math.max(...lines.map((line) => context.measureText(line).width)) + 2 * ROOM;
  const height = lines.length * SIZE * 1.3 + 2 * ROOM;
  context.fillStyle = '#ffffff';
  context.fillRect(-width / 2, -height / 2, width, height);
  context.fillStyle = '#1d2b4f';
  lines.forEach((line, i) => context.fillText(line, 0, (i - (lines.length - 1) / 2) * SIZE * 1.3));
  context.restore();
}

function inLines(context: CanvasRenderingContext2D, words: string, width: number): string[] {
  const lines: string[] = [];
  for (const word of words.split(' ')) {
    const longer = lines.length > 0 ? `${lines.at(-1)} ${word}` : word;
    if (lines.length > 0 && context.measureText(longer).width <= width)
      lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}
