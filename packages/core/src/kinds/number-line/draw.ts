import { PathBuffer } from '../../display/index.js';
import type { DisplaySink } from '../../display/index.js';
import { compose, transform } from '../../geometry/index.js';
import type { Matrix, Point } from '../../geometry/index.js';
import { labelWidth } from './digits.js';
import { MINUS } from './labels.js';
import { numberRange, numberScale, shownLabels, ticks, withinFrame } from './scale.js';
import type { NumberScale } from './scale.js';
import type { Interval, Jump, NumberLineSpec } from './spec.js';

/** Widths and lengths in parts of the size of letters. */
const LINE = 0.11;
const BAND = 0.3;
const TICK = { plain: 0.3, labelled: 0.48 } as const;
const HEAD = { length: 0.75, half: 0.3 } as const;
const DOT = 0.34;
/** Room between the line and its numbers. */
const DROP = 0.75;
/** A baseline under the top of a digit. */
const RISE = 0.72;
const WHITE = '#ffffff';

/** The line with its ticks and numbers, then intervals, jumps and points above it. */
export function drawNumberLine(line: NumberLineSpec, sink: DisplaySink): void {
  const scale = numberScale(line);
  const map = withinFrame(line);
  const path = new PathBuffer();
  drawAxis(line, scale, map, path, sink);
  drawLabels(line, scale, map, path, sink);
  for (const interval of line.intervals) drawInterval(line, interval, scale, map, path, sink);
  for (const jump of line.jumps) drawJump(line, jump, scale, map, path, sink);
  for (const { at, open } of line.points) {
    if (isOn(line, at)) drawDot(scale.x(at), open, line, scale, map, path, sink);
  }
}

function isOn(line: NumberLineSpec, value: number): boolean {
  const [from, to] = numberRange(line);
  return value >= from && value <= to;
}

function drawAxis(
  line: NumberLineSpec,
  { size, y, left, right, x }: NumberScale,
  map: Matrix,
  path: PathBuffer,
  sink: DisplaySink,
): void {
  const long = new Set(shownLabels(line).map(({ value }) => value));
  path.clear();
  const inset = size * HEAD.length * 0.8;
  segment(path, map, { x: left + inset, y }, { x: right - inset, y });
  for (const value of ticks(line)) {
    const half = size * (long.has(value) ? TICK.labelled : TICK.plain);
    segment(path, map, { x: x(value), y: y - half }, { x: x(value), y: y + half });
  }
  sink.path(path, line.colour, 'normal', size * LINE * scaleOf(map));
  path.clear();
  head(path, map, { x: left, y }, { x: 1, y: 0 }, size);
  head(path, map, { x: right, y }, { x: -1, y: 0 }, size);
  sink.path(path, line.colour, 'normal', null);
}

function drawLabels(
  line: NumberLineSpec,
  { size, y, x }: NumberScale,
  map: Matrix,
  path: PathBuffer,
  sink: DisplaySink,
): void {
  const write = (text: string, at: Point, letters: number): void => {
    const width = labelWidth(text, letters);
    sink.text({
      ...{ kind: 'text', text, font: 'plain', bold: false, slant: false, size: letters },
      ...{ colour: line.colour, width, rtl: false },
      matrix: compose([1, 0, 0, 1, at.x - width / 2, at.y], map),
    });
  };
  path.clear();
  for (const { value, label } of shownLabels(line)) {
    const top = y + size * DROP;
    const at = { x: x(value), y: top + size * RISE };
    if ('text' in label) {
      // A minus sign stands before the digits that lie under the tick.
      const shift = label.text.startsWith(MINUS) ? labelWidth(MINUS, size) / 2 : 0;
      write(label.text, { x: at.x - shift, y: at.y }, size);
      continue;
    }
    const small = size * 0.86;
    const wide = Math.max(labelWidth(label.numerator, small), labelWidth(label.denominator, small));
    write(label.numerator, { x: at.x, y: top + small * RISE }, small);
    const bar = top + small * (RISE + 0.22);
    segment(path, map, { x: at.x - wide * 0.6, y: bar }, { x: at.x + wide * 0.6, y: bar });
    write(label.denominator, { x: at.x, y: bar + small * (RISE + 0.26) }, small);
    if (label.minus) {
      const minus = labelWidth(MINUS, small);
      write(MINUS, { x: at.x - wide * 0.6 - minus * 0.85, y: bar + small * 0.25 }, small);
    }
  }
  sink.path(path, line.colour, 'normal', size * LINE * 0.7 * scaleOf(map));
}

function drawInterval(
  line: NumberLineSpec,
  { from, to, openFrom, openTo }: Interval,
  scale: NumberScale,
  map: Matrix,
  path: PathBuffer,
  sink: DisplaySink,
): void {
  const [least, most] = numberRange(line);
  const [a, b] = [Math.max(least, Math.min(from, to)), Math.min(most, Math.max(from, to))];
  if (a > b) return;
  path.clear();
  segment(path, map, { x: scale.x(a), y: scale.y }, { x: scale.x(b), y: scale.y });
  sink.path(path, line.accent, 'normal', scale.size * BAND * scaleOf(map));
  const [openA, openB] = from <= to ? [openFrom, openTo] : [openTo, openFrom];
  if (isOn(line, Math.min(from, to))) drawDot(scale.x(a), openA, line, scale, map, path, sink);
  if (isOn(line, Math.max(from, to))) drawDot(scale.x(b), openB, line, scale, map, path, sink);
}

/** A bow from one number to another, with a head; the wider it is the higher, as far as there is room. */
function drawJump(
  line: NumberLineSpec,
  { from, to }: Jump,
  { size, y, x }: NumberScale,
  map: Matrix,
  path: PathBuffer,
  sink: DisplaySink,
): void {
  if (from === to || !isOn(line, from) || !isOn(line, to)) return;
  const [start, end] = [x(from), x(to)];
  const foot = y - size * TICK.labelled;
  // A cubic with both its handles so high reaches three quarters of that.
  const high = Math.min((foot - size * 0.2) / 0.75, Math.abs(end - start) * 0.6 + size * 0.5);
  const handle = { x: (end - start) * 0.18, y: foot - Math.max(size * 0.5, high) };
  const tip = { x: end, y: foot };
  const last = { x: end - handle.x, y: handle.y };
  const far = Math.hypot(tip.x - last.x, tip.y - last.y) || 1;
  const way = { x: (last.x - tip.x) / far, y: (last.y - tip.y) / far };
  const short = { x: tip.x + way.x * size * 0.5, y: tip.y + way.y * size * 0.5 };
  path.clear();
  const [p, c1, c2, q] = [
    { x: start, y: foot },
    { x: start + handle.x, y: handle.y },
    last,
    short,
  ].map((one) => transform(map, one)) as [Point, Point, Point, Point];
  path.moveTo(p.x, p.y);
  path.bezierCurveTo(c1.x, c1.y, c2.x, c2.y, q.x, q.y);
  sink.path(path, line.accent, 'normal', size * LINE * 1.3 * scaleOf(map));
  path.clear();
  head(path, map, tip, way, size);
  sink.path(path, line.accent, 'normal', null);
}

/** A point on the line: a disc, with a white one in it where it is open. */
function drawDot(
  x: number,
  open: boolean,
  { accent }: NumberLineSpec,
  { size, y }: NumberScale,
  map: Matrix,
  path: PathBuffer,
  sink: DisplaySink,
): void {
  path.clear();
  disc(path, map, { x, y }, size * DOT);
  sink.path(path, accent, 'normal', null);
  if (!open) return;
  path.clear();
  disc(path, map, { x, y }, size * DOT * 0.6);
  sink.path(path, WHITE, 'normal', null);
}

function segment(path: PathBuffer, map: Matrix, a: Point, b: Point): void {
  const [p, q] = [transform(map, a), transform(map, b)];
  path.moveTo(p.x, p.y);
  path.lineTo(q.x, q.y);
}

/** @param way from the tip back along the line, of length 1 */
function head(path: PathBuffer, map: Matrix, tip: Point, way: Point, size: number): void {
  const [long, half] = [size * HEAD.length, size * HEAD.half];
  const base = { x: tip.x + way.x * long, y: tip.y + way.y * long };
  const corners = [
    tip,
    { x: base.x - way.y * half, y: base.y + way.x * half },
    { x: base.x + way.y * half, y: base.y - way.x * half },
  ].map((one) => transform(map, one));
  corners.forEach(({ x, y }, i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
  path.closePath();
}

/** How far control points of a quarter of a circle lie; the usual value, 4/3·(√2 − 1). */
const ROUND = 0.5523;

function disc(path: PathBuffer, map: Matrix, { x, y }: Point, r: number): void {
  const k = r * ROUND;
  const at = (dx: number, dy: number): Point => transform(map, { x: x + dx, y: y + dy });
  const curve = (...points: [Point, Point, Point]): void => {
    const [a, b, c] = points;
    path.bezierCurveTo(a.x, a.y, b.x, b.y, c.x, c.y);
  };
  const start = at(r, 0);
  path.moveTo(start.x, start.y);
  curve(at(r, k), at(k, r), at(0, r));
  curve(at(-k, r), at(-r, k), at(-r, 0));
  curve(at(-r, -k), at(-k, -r), at(0, -r));
  curve(at(k, -r), at(r, -k), at(r, 0));
  path.closePath();
}

function scaleOf([a, b]: Matrix): number {
  return Math.hypot(a, b);
}
