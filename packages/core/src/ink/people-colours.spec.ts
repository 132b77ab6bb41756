import { contrast } from './contrast.js';
import { colourOfPerson, INKS, PEOPLE_COLOURS } from './index.js';

type Rgb = readonly [number, number, number];

/** Linear light from sRGB (IEC 61966-2-1). */
function linear(hex: string): Rgb {
  return [1, 3, 5].map((i) => {
    const part = parseInt(hex.slice(i, i + 2), 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  }) as unknown as Rgb;
}

/**
 * Colours as people without one kind of cone see them: G. M. Machado, M. M. Oliveira, L. A. F. Fernandes,
 * "A Physiologically-based Model for Simulation of Color Vision Deficiency", IEEE TVCG 15 (2009), table for
 * severity 1.0 (values from memory of that table).
 */
const SEEN_AS: Readonly<Record<string, readonly Rgb[]>> = {
  protanopia: [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  deuteranopia: [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  tritanopia: [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
};

function seenAs(rgb: Rgb, matrix: readonly Rgb[]): Rgb {
  return matrix.map((row) =>
    Math.min(1, Math.max(0, row[0] * rgb[0] + row[1] * rgb[1] + row[2] * rgb[2])),
  ) as unknown as Rgb;
}

/** CIE L*a*b* of linear sRGB, D65 (CIE 15:2004). */
function lab([r, g, b]: Rgb): Rgb {
  const x = (0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.95047;
  const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  const z = (0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.08883;
  const f = (t: number): number =>
    t > 216 / 24389 ? Math.cbrt(t) : (24389 / 27 / 116) * t + 4 / 29;
  return [116 * f(y) - 16, 500 * (f(x) - f(y)), 200 * (f(y) - f(z))];
}

function difference(a: Rgb, b: Rgb): number {
  const [p, q] = [lab(a), lab(b)];
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}

/** The least difference between any two, as somebody sees them. */
function closest(colours: readonly string[], matrix: readonly Rgb[] | null): number {
  const seen = colours.map((hex) => (matrix ? seenAs(linear(hex), matrix) : linear(hex)));
  let least = Infinity;
  for (let i = 0; i < seen.length; i++)
    for (let j = 0; j < i; j++) least = Math.min(least, difference(seen[i]!, seen[j]!));
  return least;
}

/** A difference (CIE 1976) that is seen at a glance: common practice takes 2.3 as the least that is seen. */
const AT_A_GLANCE = 10;

describe('colours of people', () => {
  it('are told apart by every kind of colour vision', () => {
    expect(closest(PEOPLE_COLOURS, null)).toBeGreaterThan(AT_A_GLANCE);
    for (const [kind, matrix] of Object.entries(SEEN_AS))
      expect(closest(PEOPLE_COLOURS, matrix)).withContext(kind).toBeGreaterThan(AT_A_GLANCE);
  });

  it('come again after seven, with initials to tell them apart', () => {
    expect(colourOfPerson(0)).toBe(colourOfPerson(7));
    expect(new Set([0, 1, 2, 3, 4, 5, 6].map(colourOfPerson)).size).toBe(7);
  });
});

describe('inks', () => {
  it('have a letter each, where hue alone would not tell them apart', () => {
    expect(new Set(INKS.map(({ letter }) => letter)).size).toBe(INKS.length);
    for (const { colour } of INKS) expect(contrast(colour, '#ffffff')).toBeGreaterThan(4.5);
  });
});
