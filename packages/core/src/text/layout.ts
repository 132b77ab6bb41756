import type { Paragraph, RichText } from './rich-text.js';

/** How wide words are, in points, in their font and size. */
export type Measure = (
  text: string,
  look: { readonly bold: boolean; readonly slant: boolean },
) => number;

/** Words of one look on one line, from the left of the text's box. Points. */
export interface PlacedRun {
  readonly text: string;
  readonly x: number;
  readonly width: number;
  readonly bold?: boolean;
  readonly slant?: boolean;
  /** Written from right to left. */
  readonly rtl?: boolean;
}

export interface PlacedLine {
  /** Of the baseline, from the top of the text's box. */
  readonly y: number;
  readonly runs: readonly PlacedRun[];
}

export interface TextLayout {
  readonly lines: readonly PlacedLine[];
  /** Of all lines, in points. */
  readonly height: number;
}

export type Align = 'start' | 'middle' | 'end';

/** Distances in parts of the size: from line to line, from a line's top to its baseline, of a list's step. */
export const LINE_HEIGHT = 1.36;
export const BASELINE = 1.02;
const STEP = 1.5;

/** First letters that say which way a paragraph runs (Unicode Standard Annex 9, P2 and P3, in short). */
const RTL =
  /\p{Script=Hebrew}|\p{Script=Arabic}|\p{Script=Syriac}|\p{Script=Thaana}|\p{Script=Nko}/u;
const STRONG = /\p{L}/u;

export function isRtl(text: string): boolean {
  const first = STRONG.exec(text);
  return first !== null && RTL.test(first[0]);
}

interface Word {
  readonly text: string;
  readonly bold: boolean;
  readonly slant: boolean;
  readonly width: number;
  /** White space, which may hang over a line's end. */
  readonly space: boolean;
}

/**
 * Breaks a text into lines of at most `width` points and says where each run of words lies. Lines
 * break at white space, after hyphens, between ideographs, and between words of scripts that put nothing between them; a
 * word longer than a line is cut.
 */
export function layOutText(
  text: RichText,
  { size, width, align }: { readonly size: number; readonly width: number; readonly align: Align },
  measure: Measure,
): TextLayout {
  const lines: PlacedLine[] = [];
  let number = 0;
  for (const paragraph of text.length > 0 ? text : [{ runs: [] }]) {
    number = paragraph.list === 'numbers' ? number + 1 : 0;
    const indent = paragraph.list ? STEP * size : 0;
    const rtl = isRtl(paragraph.runs.map((run) => run.text).join(''));
    const broken = breakLines(wordsOf(paragraph, measure), Math.max(size, width - indent), measure);
    broken.forEach((words, i) => {
      const y = (lines.length * LINE_HEIGHT + BASELINE) * size;
      const runs = place(words, { width, indent, rtl, align });
      const sign = paragraph.list === 'dots' ? '•' : `${number}.`;
      if (i === 0 && paragraph.list) {
        const wide = measure(sign, { bold: false, slant: false });
        const x = rtl ? width - indent * 0.25 - wide : indent * 0.25;
        runs.unshift({ text: sign, x, width: wide });
      }
      lines.push({ y, runs });
    });
  }
  return { lines, height: lines.length * LINE_HEIGHT * size };
}

function wordsOf({ runs }: Paragraph, measure: Measure): Word[] {
  return runs.flatMap((run) => {
    const look = { bold: run.bold ?? false, slant: run.slant ?? false };
    const parts =
      run.text.match(
        /\s+|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}][\p{P}ー]*|[^\s\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}-]+-?|-/gu,
      ) ?? [];
    return parts.flatMap(wordsWithin).map((text) => ({
      text,
      ...look,
      width: measure(text, look),
      space: /^\s/.test(text),
    }));
  });
}

/**
 * Languages whose words stand together, by the script they are written in: where a word ends, a dictionary says (class SA of
 * Unicode Standard Annex 14).
 */
const RUN_TOGETHER = [
  [/\p{Script=Thai}/u, 'th'],
  [/\p{Script=Lao}/u, 'lo'],
  [/\p{Script=Khmer}/u, 'km'],
  [/\p{Script=Myanmar}/u, 'my'],
] as const;
const ANY_RUN_TOGETHER = /[\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;

/** Made when one is needed: each has a dictionary. */
const segmenters = new Map<string, Intl.Segmenter>();

/** The words in what stands between two spaces; what is no word goes with the one before it. */
function wordsWithin(part: string): string[] {
  // Asked of every word that is typed, in any script.
  if (!ANY_RUN_TOGETHER.test(part)) return [part];
  const language = RUN_TOGETHER.find(([script]) => script.test(part))![1];
  let segmenter = segmenters.get(language);
  if (!segmenter)
    segmenters.set(language, (segmenter = new Intl.Segmenter(language, { granularity: 'word' })));
  const words: string[] = [];
  for (const { segment, isWordLike } of segmenter.segment(part)) {
    if (isWordLike || words.length === 0) words.push(segment);
    else words[words.length - 1] += segment;
  }
  return words;
}

function breakLines(words: readonly Word[], width: number, measure: Measure): Word[][] {
  const lines: Word[][] = [];
  let line: Word[] = [];
  let used = 0;
  // What stands together without a space is broken only where it may be: words of a run are such.
  for (const word of words.flatMap((one) =>
    one.width > width ? cut(one, width, measure) : [one],
  )) {
    if (!word.space && used + word.width > width + 1e-6 && line.some(({ space }) => !space)) {
      lines.push(line);
      line = [];
      used = 0;
    }
    if (word.space && line.length === 0 && lines.length > 0) continue;
    line.push(word);
    used += word.width;
  }
  lines.push(line);
  return lines;
}

/** Cuts a word that is longer than a line, between letters as people see them. */
function cut(word: Word, width: number, measure: Measure): Word[] {
  const pieces: Word[] = [];
  let piece = '';
  for (const { segment } of new Intl.Segmenter().segment(word.text)) {
    if (piece !== '' && measure(piece + segment, word) > width) {
      pieces.push({ ...word, text: piece, width: measure(piece, word) });
      piece = '';
    }
    piece += segment;
  }
  pieces.push({ ...word, text: piece, width: measure(piece, word) });
  return pieces;
}

function place(
  words: readonly Word[],
  { width, indent, rtl, align }: { width: number; indent: number; rtl: boolean; align: Align },
): PlacedRun[] {
  let end = words.length;
  while (end > 0 && words[end - 1]!.space) end--;
  const runs: { text: string; bold: boolean; slant: boolean; width: number }[] = [];
  for (const word of words.slice(0, end)) {
    const last = runs.at(-1);
    if (last?.bold === word.bold && last.slant === word.slant) {
      last.text += word.text;
      last.width += word.width;
    } else {
      const { text, bold, slant } = word;
      runs.push({ text, bold, slant, width: word.width });
    }
  }
  const total = runs.reduce((sum, run) => sum + run.width, 0);
  const room = width - indent - total;
  const before = align === 'middle' ? room / 2 : align === 'end' ? room : 0;
  let at = rtl ? width - indent - before : indent + before;
  return runs.map(({ text, bold, slant, width: wide }) => {
    if (rtl) at -= wide;
    const run = {
      text,
      x: at,
      width: wide,
      ...(bold ? { bold } : {}),
      ...(slant ? { slant } : {}),
      ...(rtl ? { rtl } : {}),
    };
    if (!rtl) at += wide;
    return run;
  });
}
