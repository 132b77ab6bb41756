/** How many bytes of a file tell. */
export const PICTURE_HEAD = 64;

/** Brands of photos coded as films are, by HEVC, and of pictures coded otherwise (ISO/IEC 23008-12, annex B and 10.2). */
const HEIC = new Set(['heic', 'heix', 'heim', 'heis', 'hevc', 'hevx', 'mif1', 'msf1']);
/** AV1 Image File Format, 6. */
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

/** Whether it is a photo as telephones take them, which is a file as films are, too. */
export function isHeic(head: Uint8Array): boolean {
  return !isAvif(head) && brandsOf(head).some((brand) => HEIC.has(brand));
}

/** Width and height of either in pixels: the largest of the pictures in it (`ispe`, ISO/IEC 23008-12, 6.5.3). */
export function heifSize(bytes: Uint8Array): { width: number; height: number } {
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
