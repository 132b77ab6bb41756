import { threshold } from './raster.js';
import type { Lightness } from './raster.js';

/** Largest angle that is looked for, in degrees: a sheet isn't laid more askew under a lid. */
const MOST = 12;
const COARSE = 0.5;
const FINE = 0.05;
/** How much clearer lines must be at an angle than as they are for the picture to be turned. */
const CLEARER = 1.05;

/**
 * By how much lines of writing go down to the right, in radians: the angle at which the dark of a
 * picture, added up along it, changes most from line to line. Postl, Detection of linear oblique
 * structures and skew scan in digitized documents, Proc. 8th ICPR, 1986.
 */
export function skewOf(small: Lightness): number {
  const { width, height, data } = small;
  const level = threshold(small);
  const dark: [number, number][] = [];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) if (data[y * width + x]! <= level) dark.push([x, y]);
  if (dark.length < 20 || dark.length > data.length / 2) return 0;
  const clarity = (degrees: number): number => {
    const angle = (degrees * Math.PI) / 180;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const bins = new Float64Array(Math.ceil(height + width) + 2);
    for (const [x, y] of dark) {
      const place = y * cos - x * sin + width / 2;
      const low = Math.floor(place);
      if (low < 0 || low + 1 >= bins.length) continue;
      // Shared out between two lines, so that it changes evenly with the angle.
      bins[low]! += 1 - (place - low);
      bins[low + 1]! += place - low;
    }
    let sum = 0;
    for (let i = 1; i < bins.length; i++) sum += (bins[i]! - bins[i - 1]!) ** 2;
    return sum;
  };
  const search = (from: number, to: number, step: number): number => {
    let [best, at] = [-1, 0];
    for (let degrees = from; degrees <= to + 1e-9; degrees += step) {
      const found = clarity(degrees);
      if (found > best) [best, at] = [found, degrees];
    }
    return at;
  };
  const about = search(-MOST, MOST, COARSE);
  const found = search(about - COARSE, about + COARSE, FINE);
  return clarity(found) > clarity(0) * CLEARER ? (found * Math.PI) / 180 : 0;
}
