import { heifSize, isAvif, isHeic } from './heif.js';
import { isWholeJpeg, jpegHead } from './jpeg.js';
import { PictureError } from './picture-error.js';

export type PictureType = 'png' | 'jpeg' | 'webp' | 'avif' | 'heic' | 'gif' | 'bmp' | 'svg';

/** What a file turns out to be, going by its content. */
export interface PictureHead {
  readonly type: PictureType;
  /** In pixels, as stored; 0 for an SVG, which may be of any size. */
  readonly width: number;
  readonly height: number;
  /** 1 to 8; see `JpegHead`. */
  readonly orientation: number;
}

/** Most pixels that are decoded: a camera's 100 million, and no bomb of 30,000 × 30,000. */
export const MAX_PIXELS = 110_000_000;
/** Longest SVG, in bytes. */
const MAX_SVG = 5_000_000;

/** Throws `PictureError`: `unknown` for what is no picture we know, whatever it is called. */
export function sniffPicture(bytes: Uint8Array): PictureHead {
  const head = read(bytes);
  if (head.type !== 'svg' && (head.width < 1 || head.height < 1)) throw new PictureError('broken');
  if (head.width * head.height > MAX_PIXELS) throw new PictureError('too-large');
  return head;
}

function read(bytes: Uint8Array): PictureHead {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const text = (from: number, to: number): string =>
    String.fromCharCode(...bytes.subarray(from, to));
  const is = (type: PictureType, width: number, height: number, orientation = 1): PictureHead => ({
    type,
    width,
    height,
    orientation,
  });
  try {
    // ISO/IEC 15948, 5.2 and 11.2.2
    if (text(0, 8) === '\x89PNG\r\n\x1a\n')
      return is('png', view.getUint32(16), view.getUint32(20));
    if (text(0, 3) === '\xff\xd8\xff') {
      const { width, height, orientation } = jpegHead(bytes);
      if (!isWholeJpeg(bytes)) throw new PictureError('broken');
      return is('jpeg', width, height, orientation);
    }
    // GIF89a, 18
    if (/^GIF8[79]a$/.test(text(0, 6)))
      return is('gif', view.getUint16(6, true), view.getUint16(8, true));
    // BITMAPINFOHEADER; a height below zero is a picture from the top down
    if (text(0, 2) === 'BM' && view.getUint32(14, true) >= 40)
      return is('bmp', Math.abs(view.getInt32(18, true)), Math.abs(view.getInt32(22, true)));
    if (isAvif(bytes) || isHeic(bytes)) {
      const { width, height } = heifSize(bytes);
      return is(isAvif(bytes) ? 'avif' : 'heic', width, height);
    }
    if (text(0, 4) === 'RIFF' && text(8, 12) === 'WEBP') return webp(view, text(12, 16), is);
  } catch (error) {
    if (error instanceof RangeError) throw new PictureError('broken');
    throw error;
  }
  checkSvg(bytes);
  return is('svg', 0, 0);
}

/** RFC 9649, 2.5 to 2.7. */
function webp(
  view: DataView,
  kind: string,
  is: (type: PictureType, width: number, height: number) => PictureHead,
): PictureHead {
  const three = (at: number): number => view.getUint16(at, true) | (view.getUint8(at + 2) << 16);
  if (kind === 'VP8X') return is('webp', three(24) + 1, three(27) + 1);
  if (kind === 'VP8 ')
    return is('webp', view.getUint16(26, true) & 0x3fff, view.getUint16(28, true) & 0x3fff);
  if (kind !== 'VP8L') throw new PictureError('broken');
  const bits = view.getUint32(21, true);
  return is('webp', (bits & 0x3fff) + 1, ((bits >>> 14) & 0x3fff) + 1);
}

/**
 * Throws where this is no SVG, or one that declares entities: a few lines of those unfold to
 * gigabytes. Scripts and references to the outside need no refusal: an SVG is drawn once, by a
 * renderer that runs and fetches nothing, and only its picture is kept.
 */
function checkSvg(bytes: Uint8Array): void {
  const start = new TextDecoder().decode(bytes.subarray(0, 4096));
  if (!/^\s*(<\?xml|<!--|<!DOCTYPE|<svg)/i.test(start.replace(/^\ufeff/, '')))
    throw new PictureError('unknown');
  if (bytes.length > MAX_SVG) throw new PictureError('too-large');
  const text = new TextDecoder().decode(bytes);
  if (!/<svg[\s>]/i.test(text)) throw new PictureError('unknown');
  if (/<!ENTITY/i.test(text)) throw new PictureError('unsafe');
}
