import fc from 'fast-check';
import type { Point } from '../geometry/index.js';
import { findPaper, flatSize, flattened, homography, mapped } from './index.js';
import type { Quad, Raster } from './index.js';

/** A picture of which each pixel is as light as `light` says of its middle, from 0 to 255. */
function raster(width: number, height: number, light: (at: Point) => number): Raster {
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const value = light({ x: x + 0.5, y: y + 0.5 });
      data.fill(value, (y * width + x) * 4, (y * width + x) * 4 + 3);
    }
  return { width, height, data };
}

const quad = (...corners: [number, number][]): Quad =>
  corners.map(([x, y]) => ({ x, y })) as unknown as Quad;
const UNIT = quad([0, 0], [1, 0], [1, 1], [0, 1]);
const far = (a: Quad, b: Quad): number =>
  Math.max(...a.map(({ x, y }, i) => Math.hypot(x - b[i]!.x, y - b[i]!.y)));

/** Lines of words: short dashes on every twentieth row. */
const written = ({ x, y }: Point): number => (y % 20 < 4 && x % 30 < 22 ? 30 : 250);

/** A sheet with lines of words on a table, the sheet's corners being these. */
function photographed(corners: Quad, width = 800, height = 600): Raster {
  const back = homography(corners, quad([0, 0], [420, 0], [420, 594], [0, 594]))!;
  return raster(width, height, (at) => {
    const on = mapped(back, at);
    if (on.x < 0 || on.y < 0 || on.x > 420 || on.y > 594) return 70 + 20 * Math.sin(at.x / 9);
    const inside = on.x > 40 && on.x < 380 && on.y > 40 && on.y < 550;
    return inside ? written(on) : 240;
  });
}

describe('a map of one plane onto another', () => {
  it('takes the unit square to any quadrangle as Heckbert reckons it (Fundamentals of Texture Mapping, 1989, 2.2.3)', () => {
    const side = fc.double({ min: -0.2, max: 0.2, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(side, { minLength: 8, maxLength: 8 }),
        fc.nat(10),
        fc.nat(10),
        (d, i, j) => {
          const to = quad(
            [d[0]!, d[1]!],
            [1 + d[2]!, d[3]!],
            [1 + d[4]!, 1 + d[5]!],
            [d[6]!, 1 + d[7]!],
          );
          const [a, b, c, e] = to;
          const [dx1, dx2, sx] = [b.x - c.x, e.x - c.x, a.x - b.x + c.x - e.x];
          const [dy1, dy2, sy] = [b.y - c.y, e.y - c.y, a.y - b.y + c.y - e.y];
          const det = dx1 * dy2 - dx2 * dy1;
          const g = (sx * dy2 - dx2 * sy) / det;
          const h = (dx1 * sy - sx * dy1) / det;
          const [u, v] = [i / 10, j / 10];
          const w = g * u + h * v + 1;
          const x = ((b.x - a.x + g * b.x) * u + (e.x - a.x + h * e.x) * v + a.x) / w;
          const y = ((b.y - a.y + g * b.y) * u + (e.y - a.y + h * e.y) * v + a.y) / w;
          const found = mapped(homography(UNIT, to)!, { x: u, y: v });
          expect(Math.hypot(found.x - x, found.y - y)).toBeLessThan(1e-6);
        },
      ),
    );
  });

  it('is none where three corners lie on a line', () => {
    expect(homography(quad([0, 0], [1, 0], [2, 0], [0, 1]), UNIT)).toBeNull();
    const picture = raster(10, 10, () => 255);
    expect(flattened(picture, quad([1, 1], [1, 1], [1, 1], [1, 1]))).toBeNull();
  });
});

describe('the paper on a picture', () => {
  it('is found on a darker table, however it lies and is seen', () => {
    for (const corners of [
      quad([180, 60], [600, 90], [640, 560], [150, 530]),
      quad([230, 40], [560, 20], [690, 570], [90, 590]),
      quad([300, 30], [620, 200], [430, 580], [110, 400]),
    ])
      expect(far(findPaper(photographed(corners)), corners)).toBeLessThan(7);
  });

  it('is the whole picture, its lines made level, where there is nothing around it', () => {
    for (const degrees of [-6, -1.5, 0, 2.3, 8]) {
      const angle = (degrees * Math.PI) / 180;
      const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
      const picture = raster(600, 800, ({ x, y }) => {
        const at = { x: x * cos + y * sin + 2000, y: y * cos - x * sin + 2000 };
        const margin = x < 60 || y < 60 || x > 540 || y > 740;
        return margin ? 250 : written(at);
      });
      const [a, b] = findPaper(picture);
      const found = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
      expect(Math.abs(found - degrees))
        .withContext(String(degrees))
        .toBeLessThan(0.3);
    }
  });

  it('of which nothing can be told stays as it is', () => {
    for (const light of [() => 255, () => 0, ({ x, y }: Point) => (x * 7 + y * 13) % 251]) {
      const [a, , c] = findPaper(raster(300, 200, light));
      expect([a.x, a.y, c.x, c.y].map(Math.round)).toEqual([0, 0, 300, 200]);
    }
  });
});

describe('a sheet seen by a camera', () => {
  it('has the sides that it has, from wherever it is seen', () => {
    // Seen aslant both ways: aslant one way only, its sides can't be told. Seen nearly straight, corners
    // that are whole pixels tell them to a few parts in a hundred.
    const angle = fc
      .tuple(fc.integer({ min: 15, max: 60 }), fc.constantFrom(-1, 1))
      .map(([hundredths, sign]) => (hundredths / 100) * sign);
    fc.assert(
      fc.property(
        angle,
        angle,
        angle,
        fc.constantFrom(210 / 297, 297 / 210, 1),
        (a, b, c, aspect) => {
          const [width, height, focal] = [1600, 1200, 1500];
          const corners = [
            [-aspect, -1],
            [aspect, -1],
            [aspect, 1],
            [-aspect, 1],
          ].map(([x0, y0]) => {
            const [x1, y1] = [
              x0! * Math.cos(c) - y0! * Math.sin(c),
              x0! * Math.sin(c) + y0! * Math.cos(c),
            ];
            const [x2, z2] = [x1 * Math.cos(a), x1 * Math.sin(a)];
            const [y3, z3] = [
              y1 * Math.cos(b) - z2 * Math.sin(b),
              y1 * Math.sin(b) + z2 * Math.cos(b),
            ];
            const away = 4 + z3;
            return { x: width / 2 + (focal * x2) / away, y: height / 2 + (focal * y3) / away };
          }) as unknown as Quad;
          const size = flatSize(corners, { width, height });
          expect(Math.abs(size.width / size.height / aspect - 1)).toBeLessThan(0.05);
        },
      ),
    );
  });

  it('that is seen straight from above has the sides that are seen', () => {
    const corners = quad([100, 100], [520, 130], [478, 724], [58, 694]);
    const { width, height } = flatSize(corners, { width: 800, height: 800 });
    expect(width / height).toBeCloseTo(Math.hypot(420, 30) / Math.hypot(42, 594), 2);
  });
});

describe('a picture made flat', () => {
  it('has its corners at its corners, and lines as they were written', () => {
    const corners = quad([180, 60], [600, 90], [640, 560], [150, 530]);
    const flat = flattened(photographed(corners), corners)!;
    expect([flat.width, flat.height]).toEqual(
      Object.values(flatSize(corners, { width: 800, height: 600 })),
    );
    // Rows between lines are light, rows in lines have dark: none is crossed by both.
    const row = (y: number): number => {
      let darkest = 255;
      const at = Math.round((y / 594) * flat.height);
      for (let x = Math.round(flat.width * 0.15); x < flat.width * 0.85; x++)
        darkest = Math.min(darkest, flat.data[(at * flat.width + x) * 4]!);
      return darkest;
    };
    for (let line = 4; line < 26; line++) {
      expect(row(line * 20 + 2))
        .withContext(`line ${line}`)
        .toBeLessThan(110);
      expect(row(line * 20 + 12))
        .withContext(`below line ${line}`)
        .toBeGreaterThan(200);
    }
  });

  it('is white beyond the picture, and not changed by being seen straight already', () => {
    const picture = raster(40, 30, ({ x, y }) => (x * 3 + y * 2) % 200);
    const same = flattened(picture, quad([0, 0], [40, 0], [40, 30], [0, 30]))!;
    expect([...same.data]).toEqual([...picture.data]);
    const wider = flattened(picture, quad([-10, 0], [40, 0], [40, 30], [-10, 30]))!;
    expect([...wider.data.subarray(0, 4)]).toEqual([255, 255, 255, 255]);
  });
});
