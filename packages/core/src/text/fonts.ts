/** Fonts of texts: for reading, for titles, and for readers who mix up letters. */
export const TEXT_FONTS = ['plain', 'title', 'dyslexic'] as const;
export type TextFont = (typeof TEXT_FONTS)[number];

/** What the fonts are called that ship with Cuaderno. */
export const FONT_NAMES: Readonly<Record<TextFont, string>> = {
  plain: 'Atkinson Hyperlegible Next',
  title: 'Literata',
  dyslexic: 'OpenDyslexic',
};

/** Fonts for scripts that none of those has, in the order in which letters are looked for. */
export const SCRIPT_FONT_NAMES = [
  'Noto Sans Hebrew',
  'Noto Sans Arabic',
  'Noto Sans Devanagari',
  'Noto Sans Thai',
] as const;
