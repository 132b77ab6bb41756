import type { ClientHandlers, LiveFeature } from '../feature.js';

/** Strokes under way: they may be lost, and are never stored. Each window has one at a time. */
export class LiveInk implements LiveFeature<'ink'> {
  readonly handlers: ClientHandlers<'ink'> = {
    'live.ink': (window, message) => window.stroke.begin(message),
    'live.more': (window, message) => window.stroke.goOn(message),
    'live.end': (window, { stroke }) => window.stroke.end(stroke),
  };

  restore(): void {
    // The one who was drawing offers the line as it comes back.
  }

  /** Who comes while somebody writes sees the line when it is whole. */
  sendSnapshot(): void {
    // See above.
  }

  leave(): void {
    // A stroke under way ends with the board.
  }
}
