import { isSameFont } from './same-font.js';
import type { Deck } from './deck.js';

/** What happened to one slide on its way to a page. */
export interface SlideReport {
  /** From 1. */
  readonly number: number;
  readonly title: string;
  /** Letters on it that no font here has: boxes stand for them. */
  readonly letters: readonly string[];
  /** It had animations or came in moving, and stands still now. */
  readonly flattened: boolean;
  /** It was hidden, and is hidden now. */
  readonly hidden: boolean;
  readonly notes: boolean;
  readonly media: readonly {
    readonly name: string;
    /** Why it isn't on the page, in plain words; `null` where it is. */
    readonly problem: string | null;
  }[];
}

/** A font that isn't here, and what stands in for it. */
export interface FontReport {
  readonly asked: string;
  readonly used: string;
  /** Numbers of the slides that it was asked for on, from 1. */
  readonly slides: readonly number[];
}

/** What changed when slides became pages. */
export interface ImportReport {
  readonly slides: number;
  /** How many have a title, which is now the name of their page; `null` in reports that didn't count them. */
  readonly named: number | null;
  /** How many have notes, which are now in their page's margin; `null` in reports that didn't count them. */
  readonly noted: number | null;
  /** Each once. */
  readonly fonts: readonly FontReport[];
  /** Slides of which nothing is to be said are left out. */
  readonly changed: readonly SlideReport[];
}

/** What is known of the fonts of this machine. */
export interface MachineFonts {
  /** What stands in for a font that isn't here, where that is known. */
  readonly standIn: ReadonlyMap<string, string>;
  /** Whether some font has a letter, by its code point. */
  readonly has: (code: number) => boolean;
}

/** What is drawn as nothing, or changes the letter before it: no font need have it. */
const UNSEEN = /[\p{C}\p{Z}\ufe00-\ufe0f]/u;

/**
 * @param used fonts that each page is drawn with
 * @param problems of media, by slide and in order; `null` for those that came
 */
export function reportOn(
  deck: Deck,
  used: readonly (readonly string[])[],
  problems: readonly (readonly (string | null)[])[],
  { standIn, has }: MachineFonts,
): ImportReport {
  const fonts = new Map<string, { asked: string; used: string; slides: number[] }>();
  const changed: SlideReport[] = [];
  for (const [i, slide] of deck.slides.entries()) {
    const number = i + 1;
    const here = used[i] ?? [];
    for (const asked of slide.fonts) {
      const known = standIn.get(asked);
      const stands = known && here.find((font) => isSameFont(font, known));
      // A font that is asked for and not drawn with at all is asked for by empty words.
      if (!stands || here.some((font) => isSameFont(font, asked))) continue;
      const entry = fonts.get(asked) ?? { asked, used: stands, slides: [] };
      entry.slides.push(number);
      fonts.set(asked, entry);
    }
    const report: SlideReport = {
      number,
      title: slide.title,
      letters: [...slide.letters].filter(
        (letter) => !UNSEEN.test(letter) && !has(letter.codePointAt(0)!),
      ),
      flattened: slide.animated,
      hidden: slide.hidden,
      notes: slide.notes.length > 0,
      media: slide.media.map(({ name }, n) => ({ name, problem: problems[i]?.[n] ?? null })),
    };
    if (report.letters.length + report.media.length > 0 || report.flattened || report.hidden)
      changed.push(report);
  }
  return {
    slides: deck.slides.length,
    named: deck.slides.filter(({ title }) => title !== '').length,
    noted: deck.slides.filter(({ notes }) => notes.length > 0).length,
    fonts: [...fonts.values()],
    changed,
  };
}
