import type { Point } from '@cuaderno/core';
import { chance } from '@cuaderno/core/testing';

/*
 * A hand of our own, for the demo: each letter as the strokes by which it is written. Places are on a grid of which six steps
 * are as high as an “o”: x to the right, y up from the line that is written on. Between places a pen goes in curves; a place
 * that stands twice is a corner.
 */
const STROKES: Readonly<Record<string, string>> = {
  a: '6,5 4,6 1.8,5 1,3 1.8,.6 3.6,0 5.4,1.4 6,4|6,6 6,5 6,1.2 7,0',
  b: '1,10 1,9 1,0|1,3 2.2,5.6 4.2,6 5.8,4.4 5.6,1.6 4,0 2,.4 1,2',
  c: '5.6,5 3.8,6 1.8,5 1,3 1.8,.8 3.8,0 5.8,1',
  d: '6,5 4,6 1.8,5 1,3 1.8,.6 3.6,0 5.4,1.4 6,4|6,10 6,9 6,1.2 7,0',
  e: '1.2,3 5.6,3.2 5.2,5.2 3.6,6 1.8,5 1,3 1.8,.8 3.8,0 5.8,1',
  f: '5,9.4 3.8,10 2.8,8.6 2.6,6 2.6,0|.8,6 4.8,6',
  g: '6,5 4,6 1.8,5 1,3 1.8,.8 3.6,.2 5.4,1.6 6,4|6,6 6,5 6,-2 4.6,-4 2.4,-3.8 1.2,-2.6',
  h: '1,10 1,9 1,0|1,3.6 2.6,5.8 4.4,5.8 5.2,4 5.2,0',
  i: '1.5,6 1.5,5 1.5,1 2.4,0|1.5,8.4 1.8,8.7',
  j: '2.4,6 2.4,5 2.4,-2 1.4,-3.8 0,-3.4|2.4,8.4 2.7,8.7',
  k: '1,10 1,9 1,0|5,6 1.2,2.8|2.4,3.8 5.2,0',
  l: '1.4,10 1.4,9 1.4,1.2 2.4,0',
  m: '1,6 1,5 1,0|1,4 2.2,5.8 3.6,5.6 4,4 4,0|4,4 5.2,5.8 6.8,5.6 7.2,4 7.2,0',
  n: '1,6 1,5 1,0|1,4 2.6,5.8 4.4,5.6 5,4 5,0',
  o: '3.6,6 1.6,5 1,3 1.8,.8 3.6,0 5.4,.8 6,3 5.4,5.2 3.4,6',
  p: '1,6 1,5 1,-4|1,4 2.4,5.8 4.4,5.8 5.8,4 5.6,1.6 4,0 2,.4 1,2',
  q: '6,5 4,6 1.8,5 1,3 1.8,.6 3.6,0 5.4,1.4 6,4|6,6 6,5 6,-4 7,-3',
  r: '1,6 1,5 1,0|1,3.6 2.4,5.6 4.4,5.8',
  s: '5,5.2 3.4,6 1.6,5.4 1.8,3.8 3.8,2.8 5,1.4 4,0 2.2,0 1,.8',
  t: '2.6,9 2.6,8 2.6,1.4 3.6,0 4.8,.4|.8,6 4.8,6',
  u: '1,6 1,2 2,.2 4,.2 5.4,2|5.4,6 5.4,5 5.4,1 6.4,0',
  v: '.8,6 3,0 3,0 5.2,6',
  w: '.8,6 2.2,0 2.2,0 4,5 4,5 5.8,0 5.8,0 7.2,6',
  x: '1,6 5,0|5,6 1,0',
  y: '.8,6 3.2,.4|5.6,6 3,-2 1.4,-4 .2,-3.6',
  z: '.8,6 5,6 5,6 1,0 1,0 5.2,0',
  A: '.6,0 3.8,10 3.8,10 7,0|1.8,3.6 5.8,3.6',
  B: '1,10 1,0|1,10 4.4,9.8 5.4,7.8 4.4,5.6 1,5.2 1,5.2 5,5 6,2.6 4.8,.2 1,0',
  C: '6.6,8.4 4.6,10 2,9 .8,5 2,1 4.6,0 6.8,1.6',
  D: '1,10 1,0|1,10 4.6,9.2 6.4,5 4.6,.8 1,0',
  E: '5.6,10 1,10 1,10 1,0 1,0 5.8,0|1,5.4 4.8,5.4',
  H: '1,10 1,0|6,10 6,0|1,5.2 6,5.2',
  I: '1.6,10 1.6,0',
  J: '4.4,10 4.4,2 3,0 1,.8',
  K: '1,10 1,0|5.6,10 1.2,4.6|2.4,5.8 6,0',
  L: '1,10 1,0 1,0 5.6,0',
  M: '1,0 1,10 1,10 4,3 4,3 7,10 7,10 7,0',
  N: '1,0 1,10 1,10 6,0 6,0 6,10',
  O: '4,10 1.4,8.4 .8,5 1.6,1.4 4,0 6.6,1.4 7.4,5 6.6,8.6 3.8,10',
  P: '1,10 1,0|1,10 4.6,9.8 5.8,7.6 4.6,5.2 1,4.8',
  R: '1,10 1,0|1,10 4.6,9.8 5.8,7.6 4.6,5.2 1,4.8|3,4.8 6.2,0',
  S: '6,8.6 4,10 1.8,9 1.6,7 4,5.2 6,3.4 5.4,1 3.2,0 .8,1.2',
  T: '3.8,10 3.8,0|.6,10 7,10',
  U: '1,10 1,2.4 2.6,0 4.8,.2 6.2,2.4 6.2,10',
  V: '.6,10 3.8,0 3.8,0 7,10',
  W: '.6,10 2.4,0 2.4,0 4.6,8 4.6,8 6.8,0 6.8,0 8.4,10',
  0: '3.4,10 1.4,8.4 .8,5 1.4,1.4 3.4,0 5.4,1.6 6,5 5.4,8.6 3.2,10',
  1: '1,8 3,10 3,10 3,0',
  2: '1,8 2.4,9.8 4.6,9.6 5.4,7.6 4,4.6 1,0 1,0 5.8,0',
  3: '1,9.2 3.4,10 5.2,8.4 4.4,6 2.6,5.4 2.6,5.4 5,4.8 5.8,2.4 4,.2 1,.6',
  4: '4.4,10 1,3 1,3 6,3|4.6,6 4.6,0',
  5: '5.4,10 1.6,10 1.6,10 1.2,5.8 1.2,5.8 3.8,6 5.6,4 5,1 3,0 .8,.8',
  6: '5,10 2.4,7.6 1,4 1.6,1 3.6,0 5.4,1.4 5.4,4 3.6,5.4 1.4,4',
  7: '.8,10 5.8,10 5.8,10 2.4,0',
  8: '4.8,8.6 3,10 1.4,8.4 2,6.4 4.4,4.6 5.4,2.2 3.6,0 1.4,1 1.6,3.4 4.4,5.8 5,8.2',
  9: '5.2,6.6 3.4,4.8 1.4,5.6 1,8 2.6,9.8 4.6,9.4 5.4,7 5,2.8 3.6,0',
  '.': '1.2,.2 1.5,0',
  ',': '1.6,.6 1.6,-.4 .8,-1.8',
  '!': '1.4,10 1.4,2.8|1.4,.4 1.7,.1',
  '?': '1,8.4 2.6,10 4.8,9 4.6,6.8 2.8,4.8 2.8,2.8|2.8,.4 3.1,.1',
  ':': '1.2,4.8 1.5,4.5|1.2,.4 1.5,.1',
  '-': '.8,3.6 4.2,3.6',
  '+': '3,6.4 3,.8|.4,3.6 5.6,3.6',
  '=': '.8,4.8 5,4.8|.8,2.6 5,2.6',
  '→': '.6,3.6 8,3.6|6,5.4 8.2,3.6 8.2,3.6 6,1.8',
  '’': '1.6,10 1,8',
  '°': '1.6,10 .8,9 1.6,8 2.4,9 1.6,10',
};

/** Steps of the grid between letters and for a space between words. */
const [BETWEEN, SPACE] = [1.5, 4.5];

/** One stroke of a hand: places in points, and how long after the pen went down at the first letter it begins, in ms. */
export interface HandStroke {
  readonly places: readonly Point[];
  readonly begins: number;
}

/** How somebody writes. */
export interface Hand {
  /** Size of a step of the grid, in points: an “o” is six. */
  readonly step: number;
  /** How far the top of an “l” leans to the right, as a part of its height. */
  readonly lean: number;
  /** How much letters differ from one another, in steps. */
  readonly shake: number;
  /** How long a step takes, in ms. */
  readonly pace: number;
}

/**
 * Words as strokes, from a place on the line that is written on, in points from the top left of a page. Letters that the hand
 * doesn't have are left out.
 */
export function handwritten(words: string, at: Point, hand: Hand, seed: number): HandStroke[] {
  const random = chance(seed);
  const { step, lean, shake, pace } = hand;
  const off = (): number => (random() - 0.5) * shake;
  const strokes: HandStroke[] = [];
  let [x, clock] = [0, 0];
  for (const letter of words) {
    if (letter === ' ') {
      x += SPACE + off();
      clock += 160;
      continue;
    }
    const [dx, dy, size] = [off(), off(), 1 + off() * 0.08];
    let right = 0;
    for (const stroke of STROKES[letter]?.split('|') ?? []) {
      const corners = stroke.split(' ').map((place) => {
        const [cx, cy] = place.split(',').map(Number) as [number, number];
        right = Math.max(right, cx);
        return { x: cx + off() * 0.4, y: cy + off() * 0.4 };
      });
      const curve = curveThrough(corners);
      strokes.push({
        begins: clock,
        places: curve.map((one) => ({
          x: at.x + (x + dx + one.x * size + one.y * lean) * step,
          y: at.y - (dy + one.y * size) * step,
        })),
      });
      clock += curve.length * pace + 60 + random() * 70;
    }
    x += right + BETWEEN;
  }
  return strokes;
}

/** Places between two corners. */
const FINE = 5;

/**
 * A curve through all corners (Catmull–Rom, uniform: E. Catmull, R. Rom, “A class of local interpolating splines”, 1974).
 * Where one stands twice the pen turns.
 */
function curveThrough(corners: readonly Point[]): Point[] {
  const curve: Point[] = [corners[0]!];
  for (let i = 0; i + 1 < corners.length; i++) {
    const [b, c] = [corners[i]!, corners[i + 1]!];
    const [a, d] = [corners[i - 1] ?? b, corners[i + 2] ?? c];
    for (let n = 1; n <= FINE; n++) {
      const t = n / FINE;
      const at = (p: number, q: number, r: number, s: number): number =>
        0.5 *
        (2 * q +
          (r - p) * t +
          (2 * p - 5 * q + 4 * r - s) * t * t +
          (3 * q - p - 3 * r + s) * t ** 3);
      curve.push({ x: at(a.x, b.x, c.x, d.x), y: at(a.y, b.y, c.y, d.y) });
    }
  }
  return curve;
}
