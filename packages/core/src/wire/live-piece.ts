import { ByteReader, ByteWriter, unzigzag, zigzag } from '../ink/bytes.js';
import { InkCodingError, MAX_COORDINATE } from '../ink/index.js';
import type { InkPoint } from '../ink/index.js';
import type { Point } from '../geometry/index.js';

/*
 * The next points of a stroke under way, sent sixty times a second to everyone: as few bytes as can be.
 * One may be lost without harm to the next, so each begins from the stroke's first point:
 *
 *   pressure  1 byte, 0 to 127: one for all of its points
 *   points    x, y  zigzag varints, in 1/16 pt: the first from the stroke's first point, each other
 *                   from the one before it
 *
 * When somebody wrote them isn't told: who sees them sees that. The finished stroke has it all.
 */

const STEPS = 16;
const PRESSURE_STEPS = 127;
/** Bytes of most pieces: few enough for an array that costs next to nothing, sixty times a second for each who writes. */
const PIECE_BYTES = 48;
/** Most points of a piece: a pen reports a few in each frame; a window that was busy, of more. */
const MAX_PIECE = 2000;

/** @param origin the stroke's first point; both in points */
export function encodePiece(points: readonly InkPoint[], origin: Point): Uint8Array {
  const out = new ByteWriter(PIECE_BYTES);
  const pressure = points[points.length - 1]?.pressure ?? 0;
  out.byte(Math.round(Math.max(0, Math.min(1, pressure)) * PRESSURE_STEPS));
  let [x, y] = [Math.round(origin.x * STEPS), Math.round(origin.y * STEPS)];
  for (const p of points.slice(0, MAX_PIECE)) {
    const [nx, ny] = [Math.round(p.x * STEPS), Math.round(p.y * STEPS)];
    out.varint(zigzag(nx - x));
    out.varint(zigzag(ny - y));
    x = nx;
    y = ny;
  }
  return out.done();
}

/** Points of a piece; all at time 0. Throws `InkCodingError` for what no pen could have drawn. */
export function decodePiece(piece: Uint8Array, origin: Point): InkPoint[] {
  const input = new ByteReader(piece);
  const pressure = input.byte();
  if (pressure > PRESSURE_STEPS) throw new InkCodingError('No pen presses like that.');
  let [x, y] = [Math.round(origin.x * STEPS), Math.round(origin.y * STEPS)];
  const points: InkPoint[] = [];
  const limit = MAX_COORDINATE * STEPS;
  while (!input.atEnd) {
    x += unzigzag(input.varint());
    y += unzigzag(input.varint());
    if (Math.abs(x) > limit || Math.abs(y) > limit)
      throw new InkCodingError('The ink lies off every page.');
    if (points.length === MAX_PIECE) throw new InkCodingError('Too many points in one piece.');
    points.push({ x: x / STEPS, y: y / STEPS, pressure: pressure / PRESSURE_STEPS, time: 0 });
  }
  if (points.length === 0) throw new InkCodingError('A piece has a point at least.');
  return points;
}

/**
 * Pieces of one stroke, each after the one before it, as one: it says once where it begins, and how hard the pen
 * pressed last. Throws `InkCodingError` for what is no piece.
 */
export function joinPieces(pieces: readonly Uint8Array[]): Uint8Array {
  const [only] = pieces;
  if (pieces.length === 1) return only!;
  const out = new ByteWriter(2 * PIECE_BYTES);
  out.byte(new ByteReader(pieces[pieces.length - 1]!).byte());
  /** Where the last point lies, from the stroke's first, in steps. */
  let [lastX, lastY] = [0, 0];
  for (const piece of pieces) {
    const input = new ByteReader(piece);
    input.byte();
    let [x, y] = [0, 0];
    let first = true;
    while (!input.atEnd) {
      const [dx, dy] = [input.varint(), input.varint()];
      x += unzigzag(dx);
      y += unzigzag(dy);
      out.varint(first ? zigzag(x - lastX) : dx);
      out.varint(first ? zigzag(y - lastY) : dy);
      first = false;
    }
    [lastX, lastY] = [x, y];
  }
  return out.done();
}

/** A byte that no MessagePack begins with (its specification keeps it free): a piece follows. */
export const PIECE_MARK = 0xc1;

/** From a browser: the stroke is the one that is under way in its window. */
export function packPiece(piece: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(piece.length + 1);
  bytes[0] = PIECE_MARK;
  bytes.set(piece, 1);
  return bytes;
}

/** From the server. @param n the number that the stroke was given, below 2^14: two bytes at most */
export function packPieceOf(n: number, piece: Uint8Array): Uint8Array {
  const out = new ByteWriter(PIECE_BYTES);
  out.byte(PIECE_MARK);
  out.varint(n);
  for (const byte of piece) out.byte(byte);
  return out.done();
}

/** What `packPieceOf` packed. Throws `InkCodingError` where that is nothing. */
export function unpackPieceOf(bytes: Uint8Array): { n: number; piece: Uint8Array } {
  let n = 0;
  let scale = 1;
  for (let at = 1; at < 4; at++) {
    const byte = bytes[at];
    if (byte === undefined) break;
    n += (byte & 0x7f) * scale;
    if (byte < 0x80) return { n, piece: bytes.subarray(at + 1) };
    scale *= 0x80;
  }
  throw new InkCodingError('A piece without a number.');
}
