import { distance } from '../geometry/index.js';
import { aspectOf } from './aspect.js';
import { homography } from './homography.js';
import type { Quad } from './homography.js';
import type { Raster } from './raster.js';

/** Most pixels of what is made: corners that lie almost on a line enclose a strip without end. */
const MOST = 60_000_000;

/** Size in pixels of what lies between four corners of a picture, seen straight. */
export function flatSize(
  corners: Quad,
  picture: { readonly width: number; readonly height: number },
): { width: number; height: number } {
  const [a, b, c, d] = corners;
  const across = (distance(a, b) + distance(d, c)) / 2;
  const down = (distance(a, d) + distance(b, c)) / 2;
  const aspect = aspectOf(corners, picture.width, picture.height) ?? across / down;
  // As many pixels as there are; the side that was foreshortened more gets longer.
  const height = Math.max(down, across / aspect);
  return {
    width: Math.max(1, Math.round(height * aspect)),
    height: Math.max(1, Math.round(height)),
  };
}

/**
 * What lies between four corners of a picture, in pixels, as if it were seen from straight above.
 * Beyond the picture is white paper. `null` where the corners enclose nothing.
 */
export function flattened(picture: Raster, corners: Quad): Raster | null {
  const { width, height } = flatSize(corners, picture);
  if (width * height > MOST) return null;
  const sheet: Quad = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ];
  const map = homography(sheet, corners);
  if (!map) return null;
  const [a, b, c, d, e, f, g, h] = map as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const data = new Uint8ClampedArray(width * height * 4);
  const pixel = sampler(picture);
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++, at += 4) {
      const [px, py] = [x + 0.5, y + 0.5];
      const w = g * px + h * py + 1;
      pixel((a * px + b * py + c) / w - 0.5, (d * px + e * py + f) / w - 0.5, data, at);
    }
  return { width, height, data };
}

/** Writes the colour at a place of a picture, between its four nearest pixels. */
function sampler({ width, height, data }: Raster) {
  return (x: number, y: number, out: Uint8ClampedArray, at: number): void => {
    if (!(x >= -1 && y >= -1 && x <= width && y <= height)) {
      out.fill(255, at, at + 4);
      return;
    }
    const left = Math.min(width - 1, Math.max(0, Math.floor(x)));
    const top = Math.min(height - 1, Math.max(0, Math.floor(y)));
    const right = Math.min(width - 1, left + 1);
    const bottom = Math.min(height - 1, top + 1);
    const u = Math.min(1, Math.max(0, x - left));
    const v = Math.min(1, Math.max(0, y - top));
    const [nw, ne] = [(top * width + left) * 4, (top * width + right) * 4];
    const [sw, se] = [(bottom * width + left) * 4, (bottom * width + right) * 4];
    for (let i = 0; i < 4; i++)
      out[at + i] =
        (data[nw + i]! * (1 - u) + data[ne + i]! * u) * (1 - v) +
        (data[sw + i]! * (1 - u) + data[se + i]! * u) * v;
  };
}
