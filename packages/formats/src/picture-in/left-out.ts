import type { PictureType } from './sniff.js';

/** What of a picture isn't in what is kept of it: all but the first frame, or HTML that lies in an SVG. */
export type LeftOut = 'frames' | 'html';

/** `null` where all of it is kept. `bytes` are a whole file that was found to be of this type. */
export function leftOutOf(bytes: Uint8Array, type: PictureType): LeftOut | null {
  switch (type) {
    case 'gif':
      return gifFrames(bytes) > 1 ? 'frames' : null;
    case 'webp':
      // The animation bit of an extended file's flags (RFC 9649, 2.7).
      return text(bytes, 12, 16) === 'VP8X' && (bytes[20]! & 2) !== 0 ? 'frames' : null;
    case 'png':
      return hasAnimationControl(bytes) ? 'frames' : null;
    case 'svg':
      return /<(?:\w+:)?foreignObject[\s>/]/.test(new TextDecoder().decode(bytes)) ? 'html' : null;
    default:
      return null;
  }
}

function text(bytes: Uint8Array, from: number, to: number): string {
  return String.fromCharCode(...bytes.subarray(from, to));
}

/** Frames of a GIF (GIF89a, 20: image descriptors), as many as are whole; two are enough to know. */
function gifFrames(bytes: Uint8Array): number {
  /** Bytes of a table of colours whose size is in the lowest three bits. */
  const table = (flags: number): number => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0);
  let at = 13 + table(bytes[10]!);
  let frames = 0;
  const skipBlocks = (): void => {
    while (at < bytes.length && bytes[at] !== 0) at += bytes[at]! + 1;
    at++;
  };
  while (at < bytes.length && frames < 2) {
    const kind = bytes[at];
    if (kind === 0x21) at += 2;
    else if (kind === 0x2c) {
      frames++;
      at += 10 + table(bytes[at + 9] ?? 0) + 1;
    } else break;
    skipBlocks();
  }
  return frames;
}

/** Whether a PNG has an `acTL` chunk before its picture that counts more than one frame (PNG, third edition, 11.3.6.1). */
function hasAnimationControl(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  for (let at = 8; at + 12 <= bytes.length;) {
    const name = text(bytes, at + 4, at + 8);
    if (name === 'IDAT') return false;
    if (name === 'acTL') return at + 12 <= bytes.length && view.getUint32(at + 8) > 1;
    at += 12 + view.getUint32(at);
  }
  return false;
}
