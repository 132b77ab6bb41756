import type { HighlightName, InkName } from './palette.js';

/** One sample of a pen: place in points, pressure 0 to 1, milliseconds since the stroke began. */
export interface InkPoint {
  readonly x: number;
  readonly y: number;
  readonly pressure: number;
  readonly time: number;
}

/** What a stroke is drawn with. Width in points. */
export type InkStyle =
  | { readonly tool: 'pen'; readonly ink: InkName; readonly width: number }
  | { readonly tool: 'highlighter'; readonly ink: HighlightName; readonly width: number };

/** One line of ink, from pen down to pen up. */
export interface Stroke {
  readonly style: InkStyle;
  readonly points: readonly InkPoint[];
}

/** Pressure reported by devices that have none (Pointer Events, level 3, 5.1). */
export const NO_PRESSURE = 0.5;
