import { PictureError } from './picture-error.js';

/** What a JPEG (ITU-T T.81, annex B) says of itself before its pixels. */
export interface JpegHead {
  /** In pixels, as stored. */
  readonly width: number;
  readonly height: number;
  /** How it is to be turned to be seen upright, 1 to 8 (EXIF 2.3, tag 0x0112); 1 is as it is. */
  readonly orientation: number;
}

interface Segment {
  readonly marker: number;
  /** Of the whole segment, its marker included. */
  readonly start: number;
  readonly end: number;
}

/** Segments up to the one after which pixels come, that one included. */
function* segments(bytes: Uint8Array): Generator<Segment> {
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) throw new PictureError('broken');
    const marker = bytes[at + 1]!;
    if (marker === 0xff) {
      at++;
      continue;
    }
    const end = at + 2 + (bytes[at + 2]! << 8) + bytes[at + 3]!;
    if (end > bytes.length) throw new PictureError('broken');
    yield { marker, start: at, end };
    if (marker === 0xda) return;
    at = end;
  }
}

/** Start of frame, in whichever of its thirteen ways. */
function isFrame(marker: number): boolean {
  return marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);
}

/** Throws `PictureError` where there is no size to be found. */
export function jpegHead(bytes: Uint8Array): JpegHead {
  let orientation = 1;
  for (const { marker, start, end } of segments(bytes)) {
    if (marker === 0xe1)
      orientation = exifOrientation(bytes.subarray(start + 4, end)) ?? orientation;
    if (!isFrame(marker)) continue;
    const height = (bytes[start + 5]! << 8) | bytes[start + 6]!;
    const width = (bytes[start + 7]! << 8) | bytes[start + 8]!;
    return { width, height, orientation };
  }
  throw new PictureError('broken');
}

/**
 * Whether the file goes on to the end of the picture (EOI, T.81 B.2.1): one that was cut off on its way would be shown
 * half grey. Throws `PictureError` where it breaks off before its pixels.
 */
export function isWholeJpeg(bytes: Uint8Array): boolean {
  let pixels = bytes.length;
  for (const { marker, end } of segments(bytes)) if (marker === 0xda) pixels = end;
  for (let at = pixels; at + 1 < bytes.length; at++)
    if (bytes[at] === 0xff && bytes[at + 1] === 0xd9) return true;
  return false;
}

/** Orientation in an APP1 segment's EXIF (TIFF 6.0 inside); `null` where it says none. */
function exifOrientation(app1: Uint8Array): number | null {
  if (String.fromCharCode(...app1.subarray(0, 6)) !== 'Exif\0\0') return null;
  const tiff = new DataView(app1.buffer, app1.byteOffset + 6, app1.byteLength - 6);
  try {
    const little = tiff.getUint16(0) === 0x4949;
    const first = tiff.getUint32(4, little);
    const count = tiff.getUint16(first, little);
    for (let i = 0; i < count; i++) {
      const entry = first + 2 + i * 12;
      if (tiff.getUint16(entry, little) !== 0x0112) continue;
      const value = tiff.getUint16(entry + 8, little);
      return value >= 1 && value <= 8 ? value : null;
    }
  } catch {
    // Cut short: then it says nothing.
  }
  return null;
}

/**
 * The same picture, to the pixel, without what cameras write beside it: where it was taken, when,
 * with what (APP1: EXIF and XMP; APP13), and comments. Colour profiles stay.
 */
export function withoutNotes(bytes: Uint8Array): Uint8Array {
  const parts: Uint8Array[] = [bytes.subarray(0, 2)];
  let rest = 2;
  for (const { marker, start, end } of segments(bytes)) {
    if (![0xe1, 0xed, 0xfe].includes(marker)) parts.push(bytes.subarray(start, end));
    rest = end;
  }
  parts.push(bytes.subarray(rest));
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
