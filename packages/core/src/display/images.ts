import type { FileHash } from '../id/index.js';
import type { DisplayImage, DisplaySink } from './display-list.js';

/** Keeps which stored files the pictures are of that it is given. */
export class ImageFiles implements DisplaySink {
  readonly found = new Set<FileHash>();

  image({ file }: DisplayImage): void {
    this.found.add(file);
  }

  path(): void {
    // A path is of no file, and neither are words.
  }

  text(): void {
    // See above.
  }

  outline(): void {
    // See above.
  }
}
