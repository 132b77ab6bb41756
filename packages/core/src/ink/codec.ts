import { ByteReader, ByteWriter, InkCodingError, unzigzag, zigzag } from './bytes.js';
import { InkColumns } from './columns.js';
import { HIGHLIGHTS, INKS } from './palette.js';
import type { InkPoint, InkStyle, Stroke } from './stroke.js';

/*
 * How ink is coded, at rest and on the wire:
 *
 *   head    1 byte: version (2 bits) | tool (1 bit) | ink (5 bits)
 *   width   varint, in 1/10 pt
 *   count   varint, number of points
 *   points  x, y         as the change of the change, zigzag varints, in 1/32 pt
 *           pressure     0 to 127, as change   ┐ both in one byte where they are small, as they
 *           time         ms, change of change  ┘ mostly are; else 0xff and two zigzag varints
 *
 * A hand moves smoothly, so the change of the change is mostly one byte: about 3 bytes a point.
 */

const VERSION = 1;
/** Steps in a point: finer than a screen shows at 16-fold zoom. */
const STEPS = 32;
const PRESSURE_STEPS = 127;
const ESCAPE = 0xff;

/** Limits that honest ink never meets; longer strokes are split by the pen. */
export const MAX_POINTS = 20_000;
/** Farthest from the corner that ink may lie, in points: a page of 200 inches and its surroundings. */
export const MAX_COORDINATE = 30_000;
const MAX_WIDTH = 200;

/** The finest change the coding keeps: what a decoded point may differ by. */
export const INK_STEP = { position: 1 / STEPS, pressure: 1 / PRESSURE_STEPS, time: 1 } as const;

export function encodeStroke({ style, points }: Stroke): Uint8Array {
  const out = new ByteWriter();
  const inks: readonly { name: string }[] = style.tool === 'pen' ? INKS : HIGHLIGHTS;
  const ink = inks.findIndex(({ name }) => name === style.ink);
  out.byte((VERSION << 6) | ((style.tool === 'pen' ? 0 : 1) << 5) | ink);
  out.varint(Math.round(style.width * 10));
  writePoints(out, points);
  return out.done();
}

/** Throws `InkCodingError` for anything that is not exactly one stroke within the limits. */
export function decodeStroke(bytes: Uint8Array): Stroke {
  const style = readStroke(bytes, scratch);
  return { style, points: scratch.points() };
}

/** Reads a stroke's points into `columns`. Throws `InkCodingError` as `decodeStroke` does. */
export function readStroke(bytes: Uint8Array, columns: InkColumns): InkStyle {
  const input = new ByteReader(bytes);
  const style = readStyle(input);
  readPoints(input, columns);
  return style;
}

/** Throws `InkCodingError` for what `decodeStroke` would not take. */
export function checkStroke(bytes: Uint8Array): void {
  readStroke(bytes, scratch);
}

/** Points without a style: the next few of a stroke under way. */
export function encodePoints(points: readonly InkPoint[]): Uint8Array {
  const out = new ByteWriter();
  writePoints(out, points);
  return out.done();
}

/** Throws `InkCodingError` as `decodeStroke` does. */
export function decodePoints(bytes: Uint8Array): InkPoint[] {
  readPoints(new ByteReader(bytes), scratch);
  return scratch.points();
}

/** For whatever is read and at once handed on. */
const scratch = new InkColumns();

function readStyle(input: ByteReader): InkStyle {
  const head = input.byte();
  if (head >> 6 !== VERSION) throw new InkCodingError('This ink was coded in another way.');
  const width = input.varint() / 10;
  if (width <= 0 || width > MAX_WIDTH) throw new InkCodingError('No pen is that wide.');
  const index = head & 0x1f;
  if ((head >> 5) & 1) {
    const found = HIGHLIGHTS[index];
    if (!found) throw new InkCodingError('There is no such ink.');
    return { tool: 'highlighter', ink: found.name, width };
  }
  const found = INKS[index];
  if (!found) throw new InkCodingError('There is no such ink.');
  return { tool: 'pen', ink: found.name, width };
}

function writePoints(out: ByteWriter, points: readonly InkPoint[]): void {
  out.varint(points.length);
  let x = 0;
  let y = 0;
  let dx = 0;
  let dy = 0;
  let pressure = 0;
  let time = 0;
  let dt = 0;
  let first = true;
  for (const p of points) {
    const nx = Math.round(p.x * STEPS);
    const ny = Math.round(p.y * STEPS);
    const np = Math.round(Math.max(0, Math.min(1, p.pressure)) * PRESSURE_STEPS);
    const nt = Math.max(time, Math.round(p.time));
    out.varint(zigzag(nx - x - dx));
    out.varint(zigzag(ny - y - dy));
    const jp = zigzag(np - pressure);
    const jt = zigzag(nt - time - dt);
    if (jt < 16 && jp < 16 && ((jt << 4) | jp) !== ESCAPE) {
      out.byte((jt << 4) | jp);
    } else {
      out.byte(ESCAPE);
      out.varint(jt);
      out.varint(jp);
    }
    // The first point has no speed yet: its place must not be taken for one.
    dx = first ? 0 : nx - x;
    dy = first ? 0 : ny - y;
    dt = first ? 0 : nt - time;
    first = false;
    x = nx;
    y = ny;
    pressure = np;
    time = nt;
  }
}

function readPoints(input: ByteReader, columns: InkColumns): void {
  const count = input.varint();
  if (count === 0 || count > MAX_POINTS)
    throw new InkCodingError(`A stroke has 1 to ${MAX_POINTS} points.`);
  columns.reset(count);
  const limit = MAX_COORDINATE * STEPS;
  let x = 0;
  let y = 0;
  let dx = 0;
  let dy = 0;
  let pressure = 0;
  let time = 0;
  let dt = 0;
  for (let i = 0; i < count; i++) {
    dx += unzigzag(input.varint());
    dy += unzigzag(input.varint());
    x += dx;
    y += dy;
    if (Math.abs(x) > limit || Math.abs(y) > limit)
      throw new InkCodingError('The ink lies off every page.');
    const joint = input.byte();
    dt += unzigzag(joint === ESCAPE ? input.varint() : joint >> 4);
    pressure += unzigzag(joint === ESCAPE ? input.varint() : joint & 15);
    time += dt;
    if (dt < 0 || pressure < 0 || pressure > PRESSURE_STEPS)
      throw new InkCodingError('No pen moves like that.');
    columns.x[i] = x / STEPS;
    columns.y[i] = y / STEPS;
    columns.pressure[i] = pressure / PRESSURE_STEPS;
    columns.time[i] = time;
    if (i === 0) dx = dy = dt = 0;
  }
  if (!input.atEnd) throw new InkCodingError('There is something after the ink.');
}
