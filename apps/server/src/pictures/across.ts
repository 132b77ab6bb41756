import { GlobalFonts } from '@napi-rs/canvas';
import type { Canvas } from '@napi-rs/canvas';
import { fontFiles } from '../workers/font-files.js';

/** Height of the words, against the shorter side of the picture. */
const LETTERS = 1 / 20;
/** They go up to the right, in radians. */
const SLOPE = -Math.PI / 7;
/** Distance of lines, and of the words in one, in heights of letters. */
const LEADING = 4.5;
const SPACING = 2.5;

let families: Promise<string> | null = null;

/** Our fonts, each alphabet under a name of its own, since a name has room for one file. */
async function ourFonts(): Promise<string> {
  const files = await fontFiles({ font: 'plain', bold: true, slant: false });
  const names = files.map((file, i) => {
    GlobalFonts.register(Buffer.from(file), `Across ${i}`);
    return `"Across ${i}"`;
  });
  return [...names, 'sans-serif'].join(', ');
}

/**
 * Writes words across a picture, line by line, so that no part of use can be cut out without them.
 * They are dark with a light edge: seen on paper and on photographs, and read through.
 */
export async function writeAcross(canvas: Canvas, words: string): Promise<void> {
  families ??= ourFonts();
  const { width, height } = canvas;
  const size = Math.max(10, Math.min(width, height) * LETTERS);
  const context = canvas.getContext('2d');
  context.save();
  context.font = `700 ${size}px ${await families}`;
  context.translate(width / 2, height / 2);
  context.rotate(SLOPE);
  context.lineWidth = size / 12;
  context.strokeStyle = 'rgb(255 255 255 / 35%)';
  context.fillStyle = 'rgb(29 43 79 / 20%)';
  const step = context.measureText(words).width + size * SPACING;
  const reach = Math.hypot(width, height) / 2;
  let odd = false;
  for (let y = -reach; y < reach; y += size * LEADING) {
    odd = !odd;
    for (let x = -reach - (odd ? step / 2 : 0); x < reach; x += step) {
      context.strokeText(words, x, y);
      context.fillText(words, x, y);
    }
  }
  context.restore();
}
