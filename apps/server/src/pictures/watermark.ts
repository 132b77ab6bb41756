import type { Canvas } from '@napi-rs/canvas';
import { ourFamilies } from './canvas-fonts.js';

/** Height of the words, against the shorter side of the picture. */
const LETTERS = 1 / 20;
/** They go up to the right, in radians. */
const SLOPE = -Math.PI / 7;
/** Distance of lines, and of the words in one, in heights of letters. */
const LEADING = 4.5;
const SPACING = 2.5;

/**
 * Writes words across a picture, line by line, so that no part of use can be cut out without them.
 * They are dark with a light edge: seen on paper and on photographs, and read through.
 */
export async function writeAcross(canvas: Canvas, words: string): Promise<void> {
  const families = (await ourFamilies(words)).map((name) => `"${name}"`).join(', ');
  const { width, height } = canvas;
  const size = Math.max(10, Math.min(width, height) * LETTERS);
  const context = canvas.getContext('2d');
  context.save();
  context.font = `700 ${size}px ${families}, sans-serif`;
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
