import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { Canvas } from '@napi-rs/canvas';
import { drawPdfPage } from '@cuaderno/formats/pdf-in';
import { readFile } from 'node:fs/promises';
import { writeAcross } from './watermark.js';
import { eastAsianFamilies } from './canvas-fonts.js';

export interface ShowTask {
  /** A PDF, or a picture as it is kept. */
  readonly path: string;
  readonly type: 'pdf' | 'picture';
  /** Page of a PDF, from 1. */
  readonly page: number;
  /** Longest side of the picture, in pixels; a picture is never made larger than it is. */
  readonly side: number;
  /** Words that are written across it, again and again. */
  readonly across: string | null;
  /** WebP, which is two thirds of it, where a browser asks; else JPEG. */
  readonly webp?: boolean;
}

export type ShowNews =
  | { readonly kind: 'shown'; readonly picture: Uint8Array; readonly pages: number }
  | { readonly kind: 'fault'; readonly fault: 'broken' | 'no-page' };

const JPEG_QUALITY = 82;
/** Letters are clear with it; by eye, no source. */
const WEBP_QUALITY = 70;

/** Makes a picture of a page that carries none of the file it comes from. */
export async function showPicture(task: ShowTask): Promise<ShowNews> {
  // The file may have been taken away since it was asked for.
  const file = await readFile(task.path).catch(() => null);
  if (!file) return { kind: 'fault', fault: 'broken' };
  const bytes = new Uint8Array(file);
  const drawn = await (task.type === 'pdf' ? pageOf(bytes, task) : pictureOf(bytes, task));
  if (!('canvas' in drawn)) return drawn;
  if (task.across) await writeAcross(drawn.canvas, task.across);
  const coded = task.webp
    ? drawn.canvas.toBuffer('image/webp', WEBP_QUALITY)
    : drawn.canvas.toBuffer('image/jpeg', JPEG_QUALITY);
  return { kind: 'shown', picture: new Uint8Array(coded), pages: drawn.pages };
}

type DrawnPage =
  { readonly canvas: Canvas; readonly pages: number } | (ShowNews & { kind: 'fault' });

async function pageOf(bytes: Uint8Array, { page, side }: ShowTask): Promise<DrawnPage> {
  let canvas: Canvas | null = null;
  try {
    const pages = await drawPdfPage(
      bytes,
      { page, side, families: eastAsianFamilies },
      (width, height) => {
        canvas = sheet(width, height);
        return canvas.getContext('2d') as unknown as CanvasRenderingContext2D;
      },
    );
    return canvas ? { canvas, pages } : { kind: 'fault', fault: 'no-page' };
  } catch {
    return { kind: 'fault', fault: 'broken' };
  }
}

async function pictureOf(bytes: Uint8Array, { page, side }: ShowTask): Promise<DrawnPage> {
  if (page !== 1) return { kind: 'fault', fault: 'no-page' };
  const image = await loadImage(Buffer.from(bytes)).catch(() => null);
  if (!image) return { kind: 'fault', fault: 'broken' };
  const scale = Math.min(1, side / Math.max(image.width, image.height));
  const width = Math.max(1, Math.round(image.width * scale));
  const height = Math.max(1, Math.round(image.height * scale));
  const canvas = sheet(width, height);
  const context = canvas.getContext('2d');
  context.imageSmoothingQuality = 'high';
  context.drawImage(image, 0, 0, width, height);
  return { canvas, pages: 1 };
}

/** White paper. */
function sheet(width: number, height: number): Canvas {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, width, height);
  return canvas;
}
