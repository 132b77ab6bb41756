import { isSameFont } from './same-font.js';
import type { Deck } from './deck.js';

/** What happened to one slide on its way to a page. */
export interface SlideReport {
  /** From 1. */
  readonly number: number;
  readonly title: string;
  /** Fonts it asks for that aren't here, and what stands in for them. */
  readonly fonts: readonly { readonly asked: string; readonly used: string | null }[];
  /** It had animations or came in moving, and stands still now. */
  readonly flattened: boolean;
  /** It was hidden, and is held back now. */
  readonly hidden: boolean;
  readonly notes: boolean;
  readonly media: readonly {
    readonly name: string;
    /** Why it isn't on the page, in plain words; `null` where it is. */
    readonly problem: string | null;
  }[];
}

/** What changed when slides became pages. Slides of which nothing is to be said are left out. */
export interface ImportReport {
  readonly slides: number;
  readonly changed: readonly SlideReport[];
}

/**
 * @param used fonts that each page is drawn with
 * @param problems of media, by slide and in order; `null` for those that came
 * @param standIn what stands in for a font, where that is known
 */
export function reportOn(
  deck: Deck,
  used: readonly (readonly string[])[],
  problems: readonly (readonly (string | null)[])[],
  standIn: ReadonlyMap<string, string>,
): ImportReport {
  const slides = deck.slides.map((slide, i): SlideReport => {
    const here = used[i] ?? [];
    const asked = slide.fonts.filter((name) => !here.some((font) => isSameFont(font, name)));
    const fonts = asked.flatMap((name) => {
      const known = standIn.get(name);
      const stands = known && here.find((font) => isSameFont(font, known));
      // A font that is asked for and not drawn with at all is asked for by empty words.
      return stands ? [{ asked: name, used: stands }] : [];
    });
    return {
      number: i + 1,
      title: slide.title,
      fonts,
      flattened: slide.animated,
      hidden: slide.hidden,
      notes: slide.notes.length > 0,
      media: slide.media.map(({ name }, n) => ({ name, problem: problems[i]?.[n] ?? null })),
    };
  });
  return {
    slides: slides.length,
    changed: slides.filter(
      ({ fonts, flattened, hidden, media }) =>
        fonts.length > 0 || flattened || hidden || media.length > 0,
    ),
  };
}
