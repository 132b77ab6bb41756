import type { DisplaySink, DisplayText } from './display-list.js';

/** Keeps the words that it is given. */
export class Texts implements DisplaySink {
  readonly found: DisplayText[] = [];

  text(text: DisplayText): void {
    this.found.push(text);
  }

  path(): void {
    // Only words are kept.
  }

  image(): void {
    // See above.
  }

  outline(): void {
    // See above.
  }
}
