import { fold } from './find.js';

/** Letters of scripts that put no space between words: each is looked up by itself. */
const ALONE =
  /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Thai}\p{sc=Lao}\p{sc=Khmer}\p{sc=Myanmar}]/gu;
const BETWEEN = /[^\p{L}\p{N}]+/u;

/** A text as the words it is found by: folded, letters and digits alone. */
export function tokensOf(text: string): string[] {
  return fold(text)
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

/** Some words around the first place at which one of the wanted words begins; the beginning where none does. */
export function around(text: string, wanted: readonly (readonly string[])[]): Snippet {
  const { text: folded, places } = fold(text);
  let found: { from: number; to: number } | null = null;
  for (const word of wanted) {
    const first = word.join('');
    const match = new RegExp(`(?<![\\p{L}\\p{N}])${escaped(word[0]!)}`, 'u').exec(folded);
    const from = match?.index ?? folded.indexOf(word[0]!);
    if (from < 0 || (found && found.from <= from)) continue;
    found = { from, to: from + (folded.startsWith(first, from) ? first : word[0]!).length };
  }
  if (!found) return { before: '', found: '', after: tidy(text.slice(0, 2 * AROUND)) };
  const start = places[found.from]!;
  const end = places[found.to] ?? text.length;
  return {
    before: tidy(text.slice(Math.max(0, start - AROUND), start)),
    found: tidy(text.slice(start, end)),
    after: tidy(text.slice(end, end + AROUND)),
  };
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

function escaped(word: string): string {
  return word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}
