import type { Rect, Frame } from '../geometry/index.js';
import { middle, turned } from '../geometry/index.js';
import type { PictureSpec } from '../kinds/index.js';

const WHOLE: Rect = { x: 0, y: 0, width: 1, height: 1 };
/** Smallest part of a picture's side that may be left. */
const LEAST = 0.02;

/** A picture's frame and what is shown in it. */
export interface Crop {
  readonly frame: Frame;
  readonly crop: Rect | null;
}

/**
 * Cuts a picture, or shows more of it: sides of its frame are moved, and the picture stays where it
 * is. No side goes beyond the picture's own.
 * @param side which sides move: `across` -1 is the left, 1 the right, `down` -1 the top; 0 is none
 * @param to width and height that the frame would have
 */
export function cropTo(
  { frame, crop }: Pick<PictureSpec, 'frame' | 'crop'>,
  side: { readonly across: number; readonly down: number },
  to: { readonly width: number; readonly height: number },
): Crop {
  const shown = crop ?? WHOLE;
  const x = cut(shown.x, shown.width, side.across, to.width / frame.width);
  const y = cut(shown.y, shown.height, side.down, to.height / frame.height);
  const width = (frame.width * x.size) / shown.width;
  const height = (frame.height * y.size) / shown.height;
  // Its middle moves by half of what was cut, in the frame's own directions.
  const was = middle(frame);
  const flat = {
    x: was.x + (side.across * (width - frame.width)) / 2,
    y: was.y + (side.down * (height - frame.height)) / 2,
  };
  const at = turned(flat, was, frame.turn);
  const part = { x: x.at, y: y.at, width: x.size, height: y.size };
  return {
    frame: { x: at.x - width / 2, y: at.y - height / 2, width, height, turn: frame.turn },
    crop: part.width > 1 - 1e-6 && part.height > 1 - 1e-6 ? null : part,
  };
}

/** The whole picture again, at the place and in the size in which its part was seen. */
export function uncropped({ frame, crop }: Pick<PictureSpec, 'frame' | 'crop'>): Crop {
  if (!crop) return { frame, crop: null };
  const width = frame.width / crop.width;
  const height = frame.height / crop.height;
  const was = middle(frame);
  const flat = {
    x: was.x + (0.5 - crop.x - crop.width / 2) * width,
    y: was.y + (0.5 - crop.y - crop.height / 2) * height,
  };
  const at = turned(flat, was, frame.turn);
  return {
    frame: { x: at.x - width / 2, y: at.y - height / 2, width, height, turn: frame.turn },
    crop: null,
  };
}

/** One direction: where the part begins and how long it is, as parts of the picture. */
function cut(at: number, size: number, side: number, ratio: number): { at: number; size: number } {
  if (side === 0) return { at, size };
  const most = side < 0 ? at + size : 1 - at;
  const next = Math.min(most, Math.max(LEAST, size * ratio));
  return { at: side < 0 ? at + size - next : at, size: next };
}
