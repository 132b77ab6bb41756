import { PictureError } from './picture-error.js';

/** A PNG's first eight bytes (ISO/IEC 15948, 5.2). */
const SIGNATURE = 8;
/** Of a chunk: its length and its name before, its check after what is in it (5.3). */
const BEFORE = 8;
const AFTER = 4;

/**
 * Chunks that say what a picture looks like (ISO/IEC 15948, 11, third edition): its pixels, colours, size and frames.
 * All others are notes: where and when it was taken (eXIf, tIME), words (tEXt, zTXt, iTXt), what a program keeps for itself.
 */
const LOOKS = new Set([
  ...['IHDR', 'PLTE', 'IDAT', 'IEND', 'tRNS', 'gAMA', 'cHRM', 'sRGB', 'iCCP', 'cICP', 'sBIT'],
  ...['bKGD', 'hIST', 'pHYs', 'acTL', 'fcTL', 'fdAT', 'mDCV', 'cLLI'],
]);

/**
 * The same PNG, to the pixel, without what is noted beside it; the same bytes where nothing is.
 * Throws `PictureError` where it breaks off.
 */
export function pngWithoutNotes(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const parts: Uint8Array[] = [bytes.subarray(0, SIGNATURE)];
  let notes = false;
  let name = '';
  let at = SIGNATURE;
  for (; name !== 'IEND';) {
    if (at + BEFORE + AFTER > bytes.length) throw new PictureError('broken');
    const end = at + BEFORE + view.getUint32(at) + AFTER;
    if (end > bytes.length) throw new PictureError('broken');
    name = String.fromCharCode(...bytes.subarray(at + 4, at + BEFORE));
    if (LOOKS.has(name)) parts.push(bytes.subarray(at, end));
    else notes = true;
    at = end;
  }
  // What comes after its end is no part of it.
  if (!notes && at === bytes.length) return bytes;
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let place = 0;
  for (const part of parts) {
    out.set(part, place);
    place += part.length;
  }
  return out;
}
