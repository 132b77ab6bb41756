import { frameMatrix, inverse, transform } from '../../geometry/index.js';
import type { Matrix, Point } from '../../geometry/index.js';
import { labelWidth } from './digits.js';
import { SAME, tickLabel } from './labels.js';
import type { TickLabel } from './labels.js';
import { MAX_NUMBER, MAX_TICKS } from './spec.js';
import type { NumberLineSpec } from './spec.js';

/** Sizes of a number's letters, in points, and in parts of the frame's height. */
const SIZE = { least: 4, most: 28, part: 0.17 } as const;
/** How far down its frame the line lies: jumps go above it, numbers below. */
const AXIS = 0.58;
/** Room between two labels, in parts of their size. */
const GAP = 0.5;

/** Numbers in order, whichever way round they were given. */
export function numberRange({ from, to }: Pick<NumberLineSpec, 'from' | 'to'>): [number, number] {
  return [Math.min(from, to), Math.max(from, to)];
}

/** How many times further apart ticks or labels are where there is no room for all: 1, 2, 5, 10, 20, 50 … */
function sparser(enough: (times: number) => boolean): number {
  for (let ten = 1; ten <= MAX_NUMBER * 10; ten *= 10)
    for (const times of [ten, 2 * ten, 5 * ten]) if (enough(times)) return times;
  return MAX_NUMBER;
}

/** The step as it is drawn: larger where there would be too many ticks. */
export function tickStep(line: Pick<NumberLineSpec, 'from' | 'to' | 'step'>): number {
  const [from, to] = numberRange(line);
  return line.step * sparser((times) => (to - from) / (line.step * times) <= MAX_TICKS);
}

/** Numbers at which there are ticks, from the first on. */
export function ticks(line: Pick<NumberLineSpec, 'from' | 'to' | 'step'>): number[] {
  const [from, to] = numberRange(line);
  const step = tickStep(line);
  const count = Math.floor((to - from) / step + SAME) + 1;
  // Counted, and not added up: a thousand tenths would be a little less than a hundred.
  return Array.from({ length: count }, (_, i) => tidy(from + i * step, step));
}

/** A number without what computing in halves leaves behind the point. */
function tidy(value: number, step: number): number {
  const near = Number(value.toFixed(9));
  return Math.abs(near - value) < SAME * step ? near : value;
}

/** How a number line is measured in its frame, in points along the frame's own sides. */
export interface NumberScale {
  /** Of the numbers' letters. */
  readonly size: number;
  /** The line's height, from the top of the frame. */
  readonly y: number;
  /** Where the line begins and ends, arrow heads included. */
  readonly left: number;
  readonly right: number;
  /** Where a number is. */
  x(value: number): number;
  /** The number at a place, between the first and the last tick or beyond. */
  value(x: number): number;
}

export function numberScale(line: NumberLineSpec): NumberScale {
  const { width, height } = line.frame;
  const [from, to] = numberRange(line);
  const size = Math.min(SIZE.most, Math.max(SIZE.least, height * SIZE.part));
  const inset = Math.min(width / 4, size * 1.6);
  const room = width - 2 * inset;
  const span = to - from || 1;
  return {
    ...{ size, y: height * AXIS, left: 0, right: width },
    x: (value) => inset + ((value - from) / span) * room,
    value: (x) => from + ((x - inset) / room) * span,
  };
}

/** Labels that have room, each at its tick: all of them, or every second, fifth, tenth … */
export function shownLabels(
  line: NumberLineSpec,
): { readonly value: number; readonly label: NonNullable<TickLabel>; readonly width: number }[] {
  const scale = numberScale(line);
  const step = tickStep(line);
  const all = ticks(line).flatMap((value, i) => {
    const label = tickLabel(value, line.labels, step);
    return label ? [{ value, label, i, width: widthOf(label, scale.size) }] : [];
  });
  const widest = Math.max(0, ...all.map(({ width }) => width)) + GAP * scale.size;
  // Whole numbers may be several ticks apart.
  const apart = all.length > 1 ? scale.x(all[1]!.value) - scale.x(all[0]!.value) : Infinity;
  const skip = sparser((times) => apart * times >= widest);
  // Zero is shown where it is there, and its neighbours are counted from it.
  const zero = Math.max(
    0,
    all.findIndex(({ value }) => value === 0),
  );
  return all.filter((_, n) => (n - zero) % skip === 0);
}

function widthOf(label: NonNullable<TickLabel>, size: number): number {
  if ('text' in label) return labelWidth(label.text, size);
  const { minus, numerator, denominator } = label;
  const bar = Math.max(labelWidth(numerator, size), labelWidth(denominator, size));
  return bar + (minus ? 2 * labelWidth('−', size) : 0);
}

/** Takes points along the frame's own sides to the page. */
export function withinFrame({ frame }: Pick<NumberLineSpec, 'frame'>): Matrix {
  const [a, b, c, d, e, f] = frameMatrix(frame);
  return [a / frame.width, b / frame.width, c / frame.height, d / frame.height, e, f];
}

/** Where on the page a number is. */
export function placeOfNumber(line: NumberLineSpec, value: number): Point {
  const { x, y } = numberScale(line);
  return transform(withinFrame(line), { x: x(value), y });
}

/** The number of the tick nearest to a place on the page; there is one wherever that is. */
export function nearestTick(line: NumberLineSpec, p: Point): number {
  const at = transform(inverse(withinFrame(line)), p);
  const value = numberScale(line).value(at.x);
  const all = ticks(line);
  const [first] = all;
  const n = Math.round((value - first!) / tickStep(line));
  return all[Math.min(all.length - 1, Math.max(0, n))]!;
}
