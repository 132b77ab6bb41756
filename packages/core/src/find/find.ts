import { drawnOn } from '../board/index.js';
import type { Page } from '../board/index.js';
import type { Id } from '../id/index.js';
import { wordsOf } from '../kinds/index.js';
import { plainText } from '../text/index.js';

/** All words of one page. */
export interface PageWords {
  readonly page: Id;
  readonly text: string;
}

/** A place where something was found, with a few words around it. */
export interface Hit {
  readonly page: Id;
  readonly before: string;
  readonly found: string;
  readonly after: string;
}

/** Letters around what was found. */
const AROUND = 32;
/** Places that are told at most. */
const MOST = 500;

/** What was typed on a page, name and margin included, in the order in which it is drawn. */
export function typedOn(page: Page): string {
  const texts = drawnOn(page).map((item) => (item.kind === 'ink' ? '' : wordsOf(item)));
  return [page.name, ...texts, plainText(page.privateNotes ?? [])].filter(Boolean).join('\n');
}

/** A text as it is compared: without case and accents, any white space being one space. */
export interface Folded {
  readonly text: string;
  /** Where each letter of it stands in the text that was folded. */
  readonly places: readonly number[];
}

/**
 * Folds a text for comparing: compatibility forms are taken apart (Unicode Standard Annex 15, NFKD),
 * marks left out, capitals made small.
 */
export function foldCase(text: string): Folded {
  let out = '';
  const places: number[] = [];
  let at = 0;
  for (const letter of text) {
    const plain = /\s/u.test(letter)
      ? ' '
      : letter.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
    if (plain !== ' ' || !out.endsWith(' ')) {
      out += plain;
      for (let i = 0; i < plain.length; i++) places.push(at);
    }
    at += letter.length;
  }
  return { text: out, places };
}

/** Pages that were folded once, to be searched with every key. */
export class WordIndex {
  private readonly pages = new Map<Id, { words: PageWords; folded: Folded }>();

  set(words: PageWords): void {
    if (this.pages.get(words.page)?.words.text !== words.text)
      this.pages.set(words.page, { words, folded: foldCase(words.text) });
  }

  /** Places in the order of these pages. Nothing is found for nothing. */
  find(query: string, order: readonly Id[]): Hit[] {
    const wanted = foldCase(query.trim()).text;
    const hits: Hit[] = [];
    if (wanted === '') return hits;
    for (const page of order) {
      const known = this.pages.get(page);
      if (!known) continue;
      const { words, folded } = known;
      for (
        let at = folded.text.indexOf(wanted);
        at >= 0 && hits.length < MOST;
        at = folded.text.indexOf(wanted, at + wanted.length)
      )
        hits.push(hit(words, folded, at, at + wanted.length));
    }
    return hits;
  }
}

function hit({ page, text }: PageWords, { places }: Folded, from: number, to: number): Hit {
  const start = places[from]!;
  const end = places[to] ?? text.length;
  const tidy = (words: string): string => words.replace(/\s+/gu, ' ');
  return {
    page,
    before: tidy(text.slice(Math.max(0, start - AROUND), start)),
    found: tidy(text.slice(start, end)),
    after: tidy(text.slice(end, end + AROUND)),
  };
}
