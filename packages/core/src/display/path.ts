import type { Matrix } from '../geometry/index.js';

/** What a step of a path does, and how many numbers it takes. */
export const STEP = { move: 0, line: 1, quad: 2, close: 3 } as const;

const NUMBERS = [2, 2, 4, 0];

/**
 * A path, in points from the page's top left corner. Steps and numbers lie in two flat arrays:
 * a page of two thousand strokes is drawn by walking them, without an object for each step.
 */
export interface Path {
  readonly steps: Uint8Array;
  readonly numbers: Float32Array;
}

/** Where a path is drawn to: a canvas, a `Path2D`, an SVG or a PDF writer. */
export interface PathSink {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void;
  closePath(): void;
}

export class PathBuilder implements PathSink {
  private readonly steps: number[] = [];
  private readonly numbers: number[] = [];

  moveTo(x: number, y: number): void {
    this.steps.push(STEP.move);
    this.numbers.push(x, y);
  }

  lineTo(x: number, y: number): void {
    this.steps.push(STEP.line);
    this.numbers.push(x, y);
  }

  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void {
    this.steps.push(STEP.quad);
    this.numbers.push(cx, cy, x, y);
  }

  closePath(): void {
    this.steps.push(STEP.close);
  }

  done(): Path {
    return { steps: Uint8Array.from(this.steps), numbers: Float32Array.from(this.numbers) };
  }
}

/** Draws `path` to `sink`, through `map` if one is given. */
export function trace(path: Path, sink: PathSink, map?: Matrix): void {
  const { steps, numbers } = path;
  const [a, b, c, d, e, f] = map ?? [1, 0, 0, 1, 0, 0];
  const at = (i: number): [number, number] => {
    const x = numbers[i]!;
    const y = numbers[i + 1]!;
    return [a * x + c * y + e, b * x + d * y + f];
  };
  let n = 0;
  for (const step of steps) {
    if (step === STEP.move) sink.moveTo(...at(n));
    else if (step === STEP.line) sink.lineTo(...at(n));
    else if (step === STEP.quad) sink.quadraticCurveTo(...at(n), ...at(n + 2));
    else sink.closePath();
    n += NUMBERS[step]!;
  }
}
