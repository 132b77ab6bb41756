/**
 * Chinese, Japanese and Korean. Their fonts have thousands of letters, in a hundred files each: what a text needs of
 * them is asked for when it is drawn. Some signs are written otherwise in each, so what goes before what counts.
 */
export const EAST_ASIAN_FONTS = {
  chinese: 'Noto Sans SC Variable',
  japanese: 'Noto Sans JP Variable',
  korean: 'Noto Sans KR Variable',
} as const;
export type EastAsian = keyof typeof EAST_ASIAN_FONTS;

const HAN = /[\p{Script=Han}\p{Script=Bopomofo}]/u;
const KANA = /[\p{Script=Hiragana}\p{Script=Katakana}]/u;
const HANGUL = /\p{Script=Hangul}/u;
/** Besides those, their own punctuation, and letters and digits as wide as theirs. */
const ANY =
  /[\p{Script=Han}\p{Script=Bopomofo}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\u3000-\u303f\uff00-\uffef]/u;

const NONE: readonly EastAsian[] = [];

/** Whether a letter is taken from one of these fonts. */
export function isEastAsian(letter: string): boolean {
  return ANY.test(letter);
}

/**
 * Which of these fonts a text needs, the one of its language first: kana are Japanese, Hangul is Korean, and signs
 * that stand with neither are Chinese. None for texts in other letters.
 */
export function eastAsianIn(text: string): readonly EastAsian[] {
  if (!ANY.test(text)) return NONE;
  const fonts: EastAsian[] = [];
  if (KANA.test(text)) fonts.push('japanese');
  if (HANGUL.test(text)) fonts.push('korean');
  // What a Japanese or Korean font lacks of the signs may be there.
  if (fonts.length === 0 || HAN.test(text)) fonts.push('chinese');
  return fonts;
}

/** Letters at half the width of the others (Unicode's block of half-width and full-width forms). */
const HALF = /[\uff61-\uffdc]/;

/**
 * How wide such a letter is at size 1, by the fonts' own tables: one em, Hangul 0.92, half-width letters half of it;
 * `null` for other letters.
 */
export function eastAsianWidth(letter: string): number | null {
  if (!ANY.test(letter)) return null;
  if (HALF.test(letter)) return 0.5;
  return HANGUL.test(letter) ? 0.92 : 1;
}
