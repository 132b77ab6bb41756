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

/** Collects a path of at most so many steps. */
export class PathBuilder implements PathSink {
  private readonly steps: Uint8Array;
  private readonly numbers: Float32Array;
  private s = 0;
  private n = 0;

  constructor(steps: number) {
    this.steps = new Uint8Array(steps);
    this.numbers = new Float32Array(steps * 4);
  }

  moveTo(x: number, y: number): void {
    this.steps[this.s++] = STEP.move;
    this.numbers[this.n++] = x;
    this.numbers[this.n++] = y;
  }

  lineTo(x: number, y: number): void {
    this.steps[this.s++] = STEP.line;
    this.numbers[this.n++] = x;
    this.numbers[this.n++] = y;
  }

  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void {
    this.steps[this.s++] = STEP.quad;
    this.numbers[this.n++] = cx;
    this.numbers[this.n++] = cy;
    this.numbers[this.n++] = x;
    this.numbers[this.n++] = y;
  }

  closePath(): void {
    this.steps[this.s++] = STEP.close;
  }

  done(): Path {
    return { steps: this.steps.subarray(0, this.s), numbers: this.numbers.subarray(0, this.n) };
  }
}

/** Draws `path` to `sink`. Walked for every stroke of a page at once, so nothing is made on the way. */
export function trace({ steps, numbers }: Path, sink: PathSink): void {
  let n = 0;
  for (let i = 0; i < steps.length; i++) {
    const step = steps[i]!;
    if (step === STEP.quad)
      sink.quadraticCurveTo(numbers[n]!, numbers[n + 1]!, numbers[n + 2]!, numbers[n + 3]!);
    else if (step === STEP.line) sink.lineTo(numbers[n]!, numbers[n + 1]!);
    else if (step === STEP.move) sink.moveTo(numbers[n]!, numbers[n + 1]!);
    else sink.closePath();
    n += NUMBERS[step]!;
  }
}
