/** A picture as rows of pixels from the top left, four bytes each: red, green, blue, opacity. */
export interface Raster {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** How light each pixel is, from 0 to 255. */
export interface Lightness {
  readonly width: number;
  readonly height: number;
  readonly data: Float32Array;
  /** Pixels of the picture it was made of to one of these. */
  readonly scale: number;
}

/**
 * How light a picture is, made smaller by averaging so that its longer side is at most `side` pixels.
 * Weights of red, green and blue are those of ITU-R BT.601.
 */
export function lightness({ width, height, data }: Raster, side: number): Lightness {
  const scale = Math.max(1, Math.max(width, height) / side);
  const small = {
    width: Math.max(1, Math.round(width / scale)),
    height: Math.max(1, Math.round(height / scale)),
  };
  const out = new Float32Array(small.width * small.height);
  for (let y = 0; y < small.height; y++) {
    const top = Math.floor((y * height) / small.height);
    const bottom = Math.max(top + 1, Math.floor(((y + 1) * height) / small.height));
    for (let x = 0; x < small.width; x++) {
      const left = Math.floor((x * width) / small.width);
      const right = Math.max(left + 1, Math.floor(((x + 1) * width) / small.width));
      let sum = 0;
      for (let v = top; v < bottom; v++)
        for (let u = left, at = (v * width + left) * 4; u < right; u++, at += 4)
          sum += 0.299 * data[at]! + 0.587 * data[at + 1]! + 0.114 * data[at + 2]!;
      out[y * small.width + x] = sum / ((bottom - top) * (right - left));
    }
  }
  return { ...small, data: out, scale };
}

/**
 * The lightness that parts a picture best into dark and light: Otsu, A threshold selection method
 * from gray-level histograms, IEEE Trans. SMC 9(1), 1979, 62–66.
 */
export function threshold({ data }: Lightness): number {
  const counts = new Float64Array(256);
  for (const value of data) counts[Math.min(255, Math.max(0, Math.round(value)))]!++;
  let total = 0;
  for (let i = 0; i < 256; i++) total += i * counts[i]!;
  let [best, at] = [-1, 127];
  let [below, sum] = [0, 0];
  for (let i = 0; i < 255; i++) {
    below += counts[i]!;
    sum += i * counts[i]!;
    const above = data.length - below;
    if (below === 0 || above === 0) continue;
    const apart = sum / below - (total - sum) / above;
    const between = below * above * apart * apart;
    if (between > best) [best, at] = [between, i];
  }
  return at + 0.5;
}
