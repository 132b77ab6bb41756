import { PathBuffer, STEP } from './path.js';
import type { Path, PathSink } from './path.js';

/*
 * Paths as text: the absolute commands of SVG 2's path data, 9.3, without arcs and shorthands
 * (M, L, Q, C, Z), which is what `writePathData` writes.
 */

const TOKEN = /([MLQCZ])|([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)|([\s,]+)|(.)/gy;
const NUMBERS: Record<string, number> = { M: 2, L: 2, Q: 4, C: 6, Z: 0 };

/**
 * The path that a text describes. As SVG 2, 9.5.4, asks, what comes before a mistake is drawn and
 * what comes after it isn't.
 */
export function readPathData(data: string): Path {
  const path = new PathBuffer();
  let command = '';
  let numbers: number[] = [];
  for (const [, letter, number, , wrong] of data.matchAll(TOKEN)) {
    if (wrong !== undefined) break;
    if (letter !== undefined) {
      // A path begins with a move, and a command has all of its numbers.
      if (numbers.length > 0 || (command === '' && letter !== 'M')) break;
      command = letter;
      if (letter === 'Z') path.closePath();
    } else if (number !== undefined) {
      if (command === '' || command === 'Z') break;
      numbers.push(Number(number));
      if (numbers.length < NUMBERS[command]!) continue;
      draw(path, command, numbers);
      // Places after a move's first are lines.
      if (command === 'M') command = 'L';
      numbers = [];
    }
  }
  return path.copy();
}

function draw(path: PathSink, command: string, numbers: readonly number[]): void {
  const [a, b, c, d, e, f] = numbers as [number, number, number, number, number, number];
  if (command === 'M') path.moveTo(a, b);
  else if (command === 'L') path.lineTo(a, b);
  else if (command === 'Q') path.quadraticCurveTo(a, b, c, d);
  else path.bezierCurveTo(a, b, c, d, e, f);
}

/** Commands and how many numbers they have, by step. */
const LETTERS: Record<number, readonly [string, number]> = {
  [STEP.move]: ['M', 2],
  [STEP.line]: ['L', 2],
  [STEP.quad]: ['Q', 4],
  [STEP.close]: ['Z', 0],
  [STEP.cubic]: ['C', 6],
};

/**
 * A path as text.
 * @param digits after the decimal point
 */
export function writePathData({ steps, numbers }: Path, digits: number): string {
  const scale = 10 ** digits;
  let n = 0;
  let data = '';
  for (const step of steps) {
    const [letter, count] = LETTERS[step]!;
    data += letter;
    for (let i = 0; i < count; i++) {
      // Never "-0", which says the same in one letter more.
      const number = Math.round(numbers[n++]! * scale) / scale + 0;
      data += i === 0 || number < 0 ? number : ` ${number}`;
    }
  }
  return data;
}
