import { HIGHLIGHTS, INKS } from './palette.js';
import type { HighlightName, InkName } from './palette.js';

/** Red, green and blue, each from 0 to 1. */
type Rgb = readonly [number, number, number];

/** The ink that looks most like a colour. */
export function nearestInk(colour: Rgb): InkName {
  return nearest(INKS, colour).name;
}

export function nearestHighlight(colour: Rgb): HighlightName {
  return nearest(HIGHLIGHTS, colour).name;
}

function nearest<T extends { readonly colour: string }>(inks: readonly T[], colour: Rgb): T {
  const [l, a, b] = oklab(colour);
  const far = (ink: T): number => {
    const [L, A, B] = oklab(partsOf(ink.colour));
    // Hue counts for more than lightness: pale red is red, and no grey.
    return ((L - l) / 2) ** 2 + (A - a) ** 2 + (B - b) ** 2;
  };
  return inks.reduce((best, ink) => (far(ink) < far(best) ? ink : best));
}

/** How light a colour looks, from 0 to 1. */
export function lightness(colour: Rgb): number {
  return oklab(colour)[0];
}

/** sRGB to Oklab (B. Ottosson, "A perceptual color space for image processing", 2020). */
function oklab(colour: Rgb): [number, number, number] {
  const [r, g, b] = colour.map((part) =>
    part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4,
  ) as [number, number, number];
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

function partsOf(colour: string): Rgb {
  return [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16) / 255) as unknown as Rgb;
}
