/** What a step of a path does, and how many numbers it takes. */
export const STEP = { move: 0, line: 1, quad: 2, close: 3 } as const;

const NUMBERS = [2, 2, 4, 0];

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
  closePath(): void;
}

/** Collects a path. (Plain arrays: most paths are short, and typed ones are slow to make.) */
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
    return { steps: this.steps, numbers: this.numbers };
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
