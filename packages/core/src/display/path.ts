/** What a step of a path does, and how many numbers it takes. */
export const STEP = { move: 0, line: 1, quad: 2, close: 3, cubic: 4 } as const;

const NUMBERS = [2, 2, 4, 0, 6];

/**
 * A path, in points from the page's top left corner. Steps and numbers lie in two flat arrays:
 * a page of two thousand strokes is drawn by walking them, without an object for each step.
 */
export interface Path {
  readonly steps: readonly number[];
  readonly numbers: readonly number[];
}

/** Where a path is drawn to: a canvas, a `Path2D`, an SVG or a PDF writer. */
export interface PathSink {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void;
  bezierCurveTo(cx: number, cy: number, dx: number, dy: number, x: number, y: number): void;
  closePath(): void;
}

/** Collects a path; used for one after another, so that nothing is made for each. */
export class PathBuffer implements PathSink {
  stepCount = 0;
  steps = new Uint8Array(256);
  numberCount = 0;
  numbers = new Float64Array(2048);

  clear(): void {
    this.stepCount = 0;
    this.numberCount = 0;
  }

  moveTo(x: number, y: number): void {
    this.step(STEP.move);
    this.numbers[this.numberCount++] = x;
    this.numbers[this.numberCount++] = y;
  }

  lineTo(x: number, y: number): void {
    this.step(STEP.line);
    this.numbers[this.numberCount++] = x;
    this.numbers[this.numberCount++] = y;
  }

  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void {
    this.step(STEP.quad);
    this.numbers[this.numberCount++] = cx;
    this.numbers[this.numberCount++] = cy;
    this.numbers[this.numberCount++] = x;
    this.numbers[this.numberCount++] = y;
  }

  bezierCurveTo(cx: number, cy: number, dx: number, dy: number, x: number, y: number): void {
    this.step(STEP.cubic);
    for (const n of [cx, cy, dx, dy, x, y]) this.numbers[this.numberCount++] = n;
  }

  closePath(): void {
    this.step(STEP.close);
  }

  /** A path of its own. */
  copy(): Path {
    return {
      steps: Array.from(this.steps.subarray(0, this.stepCount)),
      numbers: Array.from(this.numbers.subarray(0, this.numberCount)),
    };
  }

  /** Draws it to `sink`. */
  trace(sink: PathSink): void {
    walk(this.steps, this.stepCount, this.numbers, sink);
  }

  private step(step: number): void {
    if (this.stepCount === this.steps.length) this.grow();
    this.steps[this.stepCount++] = step;
  }

  private grow(): void {
    const { steps, numbers } = this;
    this.steps = new Uint8Array(steps.length * 2);
    this.steps.set(steps);
    this.numbers = new Float64Array(numbers.length * 2);
    this.numbers.set(numbers);
  }
}

/** Draws a path to `sink`. */
export function trace({ steps, numbers }: Path, sink: PathSink): void {
  walk(steps, steps.length, numbers, sink);
}

/** Done for every stroke of a page at once, so nothing is made on the way. */
function walk(
  steps: ArrayLike<number>,
  count: number,
  numbers: ArrayLike<number>,
  sink: PathSink,
): void {
  let n = 0;
  for (let i = 0; i < count; i++) {
    const step = steps[i]!;
    if (step === STEP.quad)
      sink.quadraticCurveTo(numbers[n]!, numbers[n + 1]!, numbers[n + 2]!, numbers[n + 3]!);
    else if (step === STEP.line) sink.lineTo(numbers[n]!, numbers[n + 1]!);
    else if (step === STEP.move) sink.moveTo(numbers[n]!, numbers[n + 1]!);
    else if (step === STEP.close) sink.closePath();
    else
      sink.bezierCurveTo(
        numbers[n]!,
        numbers[n + 1]!,
        numbers[n + 2]!,
        numbers[n + 3]!,
        numbers[n + 4]!,
        numbers[n + 5]!,
      );
    n += NUMBERS[step]!;
  }
}
