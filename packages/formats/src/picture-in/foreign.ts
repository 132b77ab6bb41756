/** Kinds of pictures that are known when they are seen, and can't be taken. */
export type ForeignPicture = 'heic' | 'tiff' | 'ico' | 'svgz' | 'jxl' | 'psd';

/** How many bytes of a file tell. */
export const PICTURE_HEAD = 64;

/** Brands of pictures in an ISO base media file: HEIF's (ISO/IEC 23008-12, annex B and 10.2) and AVIF's (AV1 Image File Format, 6). */
const HEIC = new Set(['heic', 'heix', 'heim', 'heis', 'hevc', 'hevx', 'mif1', 'msf1']);
const AVIF = new Set(['avif', 'avis']);

/** Brands that a file says it is of, the chief one first (ISO/IEC 14496-12, 4.3); none where it is no such file. */
function brandsOf(head: Uint8Array): string[] {
  const text = String.fromCharCode(...head.subarray(0, PICTURE_HEAD));
  if (text.slice(4, 8) !== 'ftyp') return [];
  const size = new DataView(head.buffer, head.byteOffset, head.byteLength).getUint32(0);
  const end = Math.min(size, text.length);
  const brands = [text.slice(8, 12)];
  for (let at = 16; at + 4 <= end; at += 4) brands.push(text.slice(at, at + 4));
  return brands;
}

/** Whether it is an AVIF picture, which is a file as films are. */
export function isAvif(head: Uint8Array): boolean {
  return brandsOf(head).some((brand) => AVIF.has(brand));
}

/**
 * What a picture is that can't be taken, going by its first bytes; `null` for all else.
 * TIFF 6.0, section 2; ICO as Windows has it (common practice, no source); gzip: RFC 1952, 2.3.1; JPEG XL:
 * ISO/IEC 18181-1 and -2; PSD: its makers' File Formats Specification (from memory).
 */
export function foreignPicture(head: Uint8Array): ForeignPicture | null {
  const text = String.fromCharCode(...head.subarray(0, PICTURE_HEAD));
  if (!isAvif(head) && brandsOf(head).some((brand) => HEIC.has(brand))) return 'heic';
  if (text.startsWith('II*\0') || text.startsWith('MM\0*')) return 'tiff';
  if (isIcon(head)) return 'ico';
  if (text.startsWith('\x1f\x8b')) return 'svgz';
  if (text.startsWith('\xff\x0a') || text.startsWith('\0\0\0\x0cJXL \r\n\x87\n')) return 'jxl';
  if (text.startsWith('8BPS')) return 'psd';
  return null;
}

/** An icon or a cursor: two zeros, its kind, and how many pictures follow, below 256. */
function isIcon(head: Uint8Array): boolean {
  const [a, b, kind, c, count, d] = head;
  return a === 0 && b === 0 && (kind === 1 || kind === 2) && c === 0 && count !== 0 && d === 0;
}

/** Width and height of an AVIF in pixels: the largest of the pictures in it (`ispe`, ISO/IEC 23008-12, 6.5.3). */
export function avifSize(bytes: Uint8Array): { width: number; height: number } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // Boxes that say what there is come before the pixels.
  const end = Math.min(bytes.length - 16, 1 << 16);
  let [width, height] = [0, 0];
  for (let at = 0; at < end; at++) {
    if (view.getUint32(at) !== 0x69737065) continue;
    const [w, h] = [view.getUint32(at + 8), view.getUint32(at + 12)];
    if (w * h > width * height) [width, height] = [w, h];
  }
  return { width, height };
}
