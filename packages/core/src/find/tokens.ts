import { foldCase } from './find.js';

/** Letters of scripts that put no space between words: each is looked up by itself. */
const ALONE =
  /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Thai}\p{sc=Lao}\p{sc=Khmer}\p{sc=Myanmar}]/gu;
/** Letters and digits without anything between them, marks included. */
const RUN = /[\p{L}\p{N}\p{M}]+/gu;
const BETWEEN = /[^\p{L}\p{N}]+/u;

/** A text as the words it is found by: folded, letters and digits alone. */
export function tokensOf(text: string): string[] {
  return foldCase(text)
    .text.replace(ALONE, ' $& ')
    .split(BETWEEN)
    .filter((token) => token !== '');
}

/** What is asked for: each of its words, as the tokens that must follow each other. */
export function wantedOf(query: string): string[][] {
  return query
    .split(/\s+/u)
    .map(tokensOf)
    .filter((tokens) => tokens.length > 0);
}

/** Whether all that is wanted is in these tokens; the last token of each word may go on. */
export function hasAll(tokens: readonly string[], wanted: readonly (readonly string[])[]): boolean {
  return wanted.every((word) => tokens.some((_, at) => standsAt(tokens, word, at)));
}

function standsAt(tokens: readonly string[], word: readonly string[], at: number): boolean {
  return word.every((part, i) => {
    const token = tokens[at + i];
    return i === word.length - 1 ? token?.startsWith(part) : token === part;
  });
}

/**
 * Some words around the first place at which one of the wanted words begins; the beginning of the text where
 * none does.
 */
export function around(text: string, wanted: readonly (readonly string[])[]): Snippet {
  for (const { 0: run, index } of text.matchAll(RUN)) {
    const folded = foldCase(run);
    for (const word of wanted) {
      const [first, whole] = [word[0]!, word.join('')];
      const isAlone = first.search(ALONE) === 0;
      const from = isAlone ? folded.text.indexOf(first) : folded.text.startsWith(first) ? 0 : -1;
      if (from < 0) continue;
      const to = from + (folded.text.startsWith(whole, from) ? whole : first).length;
      const start = index + folded.places[from]!;
      const end = index + (folded.places[to] ?? run.length);
      return {
        before: tidy(text.slice(Math.max(0, start - AROUND), start)),
        found: tidy(text.slice(start, end)),
        after: tidy(text.slice(end, end + AROUND)),
      };
    }
  }
  return { before: '', found: '', after: tidy(text.slice(0, 2 * AROUND)) };
}

/** Letters before and after what was found. */
const AROUND = 60;

/** Where something was found, with some words before and after. */
export interface Snippet {
  readonly before: string;
  readonly found: string;
  readonly after: string;
}

function tidy(words: string): string {
  return words.replace(/\s+/gu, ' ');
}
