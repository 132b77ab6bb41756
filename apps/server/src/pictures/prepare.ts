import { createCanvas, ImageData, loadImage } from '@napi-rs/canvas';
import type { Canvas, Image } from '@napi-rs/canvas';
import {
  leftOutOf,
  PictureError,
  pngWithoutNotes,
  sniffPicture,
  withoutNotes,
} from '@cuaderno/formats/picture-in';
import type { LeftOut, PictureFault, PictureHead } from '@cuaderno/formats/picture-in';
import { readFile } from 'node:fs/promises';

/** Longest side that is kept, in pixels: 14 inches at 300 dots an inch. */
const MAX_SIDE = 4200;
/** Pixels that are kept at most: sharp on a page that fills a large screen twice over. */
const MAX_KEPT = 12_000_000;
/** Pixels for the longer side of an SVG. */
const SVG_SIDE = 2400;
/** Bytes above which a picture without see-through parts is better off as JPEG. */
const LARGE = 1_500_000;
const JPEG_QUALITY = 90;

export type PictureNews =
  | {
      readonly kind: 'picture';
      /** What is to be kept, PNG or JPEG; `null` where the file is as it should be. */
      readonly bytes: Uint8Array | null;
      readonly type: 'image/png' | 'image/jpeg';
      /** In pixels, upright. */
      readonly width: number;
      readonly height: number;
      /** What of it isn't in what is kept. */
      readonly leftOut: LeftOut | null;
    }
  | { readonly kind: 'fault'; readonly fault: PictureFault };

type KeptPicture = Omit<Extract<PictureNews, { kind: 'picture' }>, 'leftOut'>;

/**
 * Makes of any picture one that every screen and every PDF takes: upright, not larger than is of
 * use, PNG or JPEG, without what a camera notes beside it.
 */
export async function preparePicture(path: string): Promise<PictureNews> {
  try {
    const bytes = new Uint8Array(await readFile(path));
    const head = sniffPicture(bytes);
    return { ...(await prepare(bytes, head)), leftOut: leftOutOf(bytes, head.type) };
  } catch (error) {
    if (error instanceof PictureError) return { kind: 'fault', fault: error.fault };
    throw error;
  }
}

async function prepare(bytes: Uint8Array, head: PictureHead): Promise<KeptPicture> {
  const { type, width, height } = head;
  if (type === 'heic') return draw(await photo(bytes, head), head);
  const image = await loadImage(Buffer.from(bytes)).catch(() => {
    throw new PictureError('broken');
  });
  if (image.width < 1 || image.height < 1) throw new PictureError('broken');
  const fits = Math.max(width, height) <= MAX_SIDE && width * height <= MAX_KEPT;
  if (type === 'png' && fits) {
    const bare = pngWithoutNotes(bytes);
    const kept = bare === bytes ? null : bare;
    return { kind: 'picture', bytes: kept, type: 'image/png', width, height };
  }
  if (type === 'jpeg' && fits && head.orientation === 1)
    return { kind: 'picture', bytes: withoutNotes(bytes), type: 'image/jpeg', width, height };
  return draw(image, head);
}

/** Pixels of a photo at most: its decoder has 4 GB at the utmost, and needs some 20 bytes a pixel (tried, no source). */
const MAX_PHOTO = 60_000_000;

/** Decodes a photo as telephones take them: turned as it was held, its first picture where there are several. */
async function photo(bytes: Uint8Array, { width, height }: PictureHead): Promise<Canvas> {
  if (width * height > MAX_PHOTO) throw new PictureError('too-large');
  // It brings 4 MB of code along, which most pictures don't need.
  const { default: decode } = await import('heic-decode');
  const found = await decode({ buffer: bytes }).catch(() => {
    throw new PictureError('heic');
  });
  const canvas = createCanvas(found.width, found.height);
  const pixels = new ImageData(found.data, found.width, found.height);
  canvas.getContext('2d').putImageData(pixels, 0, 0);
  return canvas;
}

function draw(image: Image | Canvas, { type }: PictureHead): KeptPicture {
  const longer = Math.max(image.width, image.height);
  const scale =
    type === 'svg'
      ? SVG_SIDE / longer
      : Math.min(1, MAX_SIDE / longer, Math.sqrt(MAX_KEPT / (image.width * image.height)));
  const width = Math.max(1, Math.round(image.width * scale));
  const height = Math.max(1, Math.round(image.height * scale));
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.imageSmoothingQuality = 'high';
  context.drawImage(image, 0, 0, width, height);
  if (type === 'jpeg' || type === 'heic')
    return picture(canvas.toBuffer('image/jpeg', JPEG_QUALITY), 'image/jpeg', width, height);
  const png = canvas.toBuffer('image/png');
  if (png.length <= LARGE || seesThrough(context.getImageData(0, 0, width, height).data))
    return picture(png, 'image/png', width, height);
  return picture(canvas.toBuffer('image/jpeg', JPEG_QUALITY), 'image/jpeg', width, height);
}

function seesThrough(pixels: Uint8ClampedArray): boolean {
  for (let i = 3; i < pixels.length; i += 4) if (pixels[i]! < 255) return true;
  return false;
}

function picture(
  bytes: Uint8Array,
  type: 'image/png' | 'image/jpeg',
  width: number,
  height: number,
): KeptPicture {
  return { kind: 'picture', bytes: new Uint8Array(bytes), type, width, height };
}
