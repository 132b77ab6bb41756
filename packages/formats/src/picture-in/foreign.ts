import { PICTURE_HEAD } from './heif.js';

/** Kinds of pictures that are known when they are seen, and can't be taken. */
export type ForeignPicture = 'tiff' | 'ico' | 'svgz' | 'jxl' | 'psd';

/**
 * What a picture is that can't be taken, going by its first bytes; `null` for all else.
 * TIFF 6.0, section 2; ICO as Windows has it (common practice, no source); gzip: RFC 1952, 2.3.1; JPEG XL:
 * ISO/IEC 18181-1 and -2; PSD: its makers' File Formats Specification (from memory).
 */
export function foreignPicture(head: Uint8Array): ForeignPicture | null {
  const text = String.fromCharCode(...head.subarray(0, PICTURE_HEAD));
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
