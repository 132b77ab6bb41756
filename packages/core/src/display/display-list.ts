import type { Path } from './path.js';

/**
 * What an item looks like, for whoever draws it: the canvas, a thumbnail, PDF, SVG, PNG. They all
 * draw the same list, and that is why what is seen is what is saved.
 */
export type DisplayItem = DisplayPath;

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

export type DisplayList = readonly DisplayItem[];
