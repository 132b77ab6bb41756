import type { InkStyle } from '@cuaderno/core/ink';
import { HIGHLIGHT_WIDTHS, PEN_WIDTHS } from '@cuaderno/core/ink';

/** Pens that are a touch away, as they are at first: for notes, to point out, to mark, to correct. */
export const FIRST_PRESETS: readonly InkStyle[] = [
  { tool: 'pen', ink: 'midnight', width: PEN_WIDTHS[0] },
  { tool: 'pen', ink: 'poppy', width: PEN_WIDTHS[3] },
  { tool: 'highlighter', ink: 'lemon', width: HIGHLIGHT_WIDTHS[1] },
  { tool: 'pen', ink: 'fern', width: PEN_WIDTHS[1] },
];

export function samePen(a: InkStyle, b: InkStyle): boolean {
  return a.tool === b.tool && a.ink === b.ink && a.width === b.width;
}
