import type { Matrix, Rect } from '../geometry/index.js';
import type { FileHash } from '../id/index.js';
import type { EastAsian, TextFont } from '../text/index.js';
import type { Path, PathBuffer } from './path.js';

/**
 * What an item looks like, for all that draws it: the canvas, a thumbnail, PDF, SVG, PNG. They all
 * draw the same list, and that is why what is seen is what is saved.
 */
export type DisplayItem = DisplayPath | DisplayOutline | DisplayImage | DisplayText;

/** Opaque, or laid over what is under it by multiplying, as a marker on paper is. */
export type Blend = 'normal' | 'multiply';

export interface DisplayPath {
  readonly kind: 'path';
  readonly path: Path;
  /** `#rrggbb` */
  readonly colour: string;
  readonly blend: Blend;
  /** Filled (non-zero winding rule), or drawn along with a round pen of so many points. */
  readonly paint: 'fill' | { readonly width: number };
}

/** Filled outlines of letters and signs, finer than a page's points. */
export interface DisplayOutline {
  readonly kind: 'outline';
  /** In units of its own. */
  readonly path: Path;
  /** `#rrggbb` */
  readonly colour: string;
  /** Takes its units to points on the page. */
  readonly matrix: Matrix;
}

/** Words of one look, on one line. */
export interface DisplayText {
  readonly kind: 'text';
  readonly text: string;
  readonly font: TextFont;
  readonly bold: boolean;
  readonly slant: boolean;
  /** In points. */
  readonly size: number;
  /** `#rrggbb` */
  readonly colour: string;
  /** How wide they are, in points: what draws them wider or narrower makes them so wide. */
  readonly width: number;
  /** Written from right to left. */
  readonly rtl: boolean;
  /** Fonts for Chinese, Japanese and Korean that the whole text needs, of which these words are a part. */
  readonly eastAsian?: readonly EastAsian[];
  /** Takes the left end of the baseline, and points from there, to the page. */
  readonly matrix: Matrix;
}

/** A picture of a stored file. */
export interface DisplayImage {
  readonly kind: 'image';
  readonly file: FileHash;
  /** Takes the unit square, top left corner first, to where the picture lies on the page. */
  readonly matrix: Matrix;
  /** The part of the picture that fills the square, in parts of its width and height. */
  readonly crop: Rect;
}

/**
 * Takes a display list as it is made, without its being kept: sixty pages of ink are tens of
 * thousands of paths.
 */
export interface DisplaySink {
  /**
   * @param path to be read at once: the next one is made in its place
   * @param width of the round pen in points; `null` where the path is filled
   */
  path(path: PathBuffer, colour: string, blend: Blend, width: number | null): void;

  image(image: DisplayImage): void;

  text(text: DisplayText): void;

  outline(outline: DisplayOutline): void;
}

/** Keeps what it is given, as a list. */
export class DisplayListBuilder implements DisplaySink {
  private readonly list: DisplayItem[] = [];

  path(path: PathBuffer, colour: string, blend: Blend, width: number | null): void {
    const paint = width === null ? 'fill' : { width };
    this.list.push({ kind: 'path', path: path.copy(), colour, blend, paint });
  }

  image(image: DisplayImage): void {
    this.list.push(image);
  }

  text(text: DisplayText): void {
    this.list.push(text);
  }

  outline(outline: DisplayOutline): void {
    this.list.push(outline);
  }

  done(): DisplayItem[] {
    return this.list;
  }
}
