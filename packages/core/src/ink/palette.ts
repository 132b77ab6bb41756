import * as z from 'zod';

/**
 * The inks, by name. Each has at least 4.5:1 contrast on white paper (WCAG 2.2, 1.4.3; checked in
 * `contrast.spec.ts`), and a letter, so that nobody has to tell two inks apart by hue alone.
 * The order is part of the ink coding: add at the end, never reorder.
 */
export const INKS = [
  { name: 'midnight', label: 'Midnight blue', letter: 'M', colour: '#1f3a68' },
  { name: 'poppy', label: 'Poppy red', letter: 'P', colour: '#c22f2f' },
  { name: 'fern', label: 'Fern green', letter: 'F', colour: '#2c7a3f' },
  { name: 'iris', label: 'Iris violet', letter: 'I', colour: '#7a3fa8' },
  { name: 'rust', label: 'Rust orange', letter: 'R', colour: '#a85208' },
  { name: 'lagoon', label: 'Lagoon blue', letter: 'L', colour: '#0b6f86' },
  { name: 'coal', label: 'Coal black', letter: 'C', colour: '#22242a' },
  { name: 'walnut', label: 'Walnut brown', letter: 'W', colour: '#6a4a33' },
] as const;

export type InkName = (typeof INKS)[number]['name'];
export const InkName = z.enum(INKS.map((ink) => ink.name) as [InkName, ...InkName[]]);

/** Highlighter colours: laid over text by multiplying, they leave black text above 7:1. */
export const HIGHLIGHTS = [
  { name: 'lemon', label: 'Lemon yellow', letter: 'L', colour: '#ffe45c' },
  { name: 'mint', label: 'Mint green', letter: 'M', colour: '#9fe8a8' },
  { name: 'sky', label: 'Sky blue', letter: 'S', colour: '#9ed8ff' },
  { name: 'rose', label: 'Rose pink', letter: 'R', colour: '#ffb8cf' },
] as const;

export type HighlightName = (typeof HIGHLIGHTS)[number]['name'];
export const HighlightName = z.enum(
  HIGHLIGHTS.map((ink) => ink.name) as [HighlightName, ...HighlightName[]],
);

/** Pen widths in points. Practice: 21 pt (28 screen px at full size) to point something out. */
export const PEN_WIDTHS = [1.2, 2.4, 5, 21] as const;
/** Highlighter widths in points. */
export const HIGHLIGHT_WIDTHS = [10, 16, 26] as const;

export function inkColour(name: InkName): string {
  return INKS.find((ink) => ink.name === name)!.colour;
}

export function highlightColour(name: HighlightName): string {
  return HIGHLIGHTS.find((ink) => ink.name === name)!.colour;
}
