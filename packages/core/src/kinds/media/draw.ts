import { PathBuffer } from '../../display/index.js';
import type { DisplaySink } from '../../display/index.js';
import { compose, frameMatrix, transform } from '../../geometry/index.js';
import type { Frame, Matrix, Point } from '../../geometry/index.js';
import type { MediaSpec } from './spec.js';

/** Colours of what has no picture of its own: ink on the paper of an envelope. */
const GROUND = '#e8edf6';
const DARK = '#22314f';
const SIGN = '#1f3a6e';

/** Heights of the bars of a sound of which nothing is known. */
const UNKNOWN = [0.35, 0.7, 0.5, 0.9, 0.6, 0.4, 0.75, 0.55] as const;

/** Where the sign is that plays a sound or film, on its page; in points. */
export function playSign(frame: Frame): { readonly at: Point; readonly radius: number } {
  const { width, height } = frame;
  const radius = Math.max(2, Math.min(20, width * 0.2, height * 0.32));
  const inset = Math.min(height / 2, radius * 1.5);
  return { at: transform(within(frame), { x: inset, y: height - inset }), radius };
}

/** What a sound or a film looks like while it doesn't play. */
export function drawMedia(media: MediaSpec, sink: DisplaySink): void {
  const { frame, medium, poster } = media;
  const { width, height } = frame;
  const map = within(frame);
  const path = new PathBuffer();
  if (medium === 'film' && poster) {
    const matrix = frameMatrix(frame);
    sink.image({ kind: 'image', file: poster, matrix, crop: { x: 0, y: 0, width: 1, height: 1 } });
  } else {
    box(path, map, 0, 0, width, height);
    sink.path(path, medium === 'film' ? DARK : GROUND, 'normal', null);
  }
  if (medium === 'sound') drawPeaks(media, map, path, sink);
  drawSign(frame, path, sink);
}

/** Bars as high as the sound is loud, one beside the other. */
function drawPeaks(
  { frame: { width, height }, peaks }: MediaSpec,
  map: Matrix,
  path: PathBuffer,
  sink: DisplaySink,
): void {
  const edge = Math.min(height * 0.2, 8);
  const left = Math.min(height, 60) + edge;
  const room = width - left - edge;
  if (room < 8) return;
  const known = peaks?.length ? peaks : null;
  const count = Math.max(1, Math.min(known?.length ?? 24, Math.floor(room / 3)));
  const step = room / count;
  path.clear();
  for (let i = 0; i < count; i++) {
    // Several peaks to a bar where there is no room for a bar each: the highest counts.
    const part = known?.slice(
      Math.floor((i * known.length) / count),
      Math.max(
        Math.floor((i * known.length) / count) + 1,
        Math.floor(((i + 1) * known.length) / count),
      ),
    );
    const peak = part ? Math.max(...part) : UNKNOWN[i % UNKNOWN.length]!;
    const high = Math.max(1, peak * (height - 2 * edge));
    box(path, map, left + i * step, (height - high) / 2, step * 0.6, high);
  }
  sink.path(path, '#7f93b8', 'normal', null);
}

/** A disc with a triangle that points on, on whatever is under it. */
function drawSign(frame: Frame, path: PathBuffer, sink: DisplaySink): void {
  const { at, radius } = playSign(frame);
  path.clear();
  disc(path, at, radius);
  sink.path(path, '#ffffff', 'normal', null);
  path.clear();
  disc(path, at, radius * 0.9);
  sink.path(path, SIGN, 'normal', null);
  path.clear();
  const angle = (frame.turn * Math.PI) / 180;
  const corner = (x: number, y: number): Point => ({
    x: at.x + radius * (x * Math.cos(angle) - y * Math.sin(angle)),
    y: at.y + radius * (x * Math.sin(angle) + y * Math.cos(angle)),
  });
  const [a, b, c] = [corner(-0.3, -0.45), corner(0.5, 0), corner(-0.3, 0.45)];
  path.moveTo(a.x, a.y);
  path.lineTo(b.x, b.y);
  path.lineTo(c.x, c.y);
  path.closePath();
  sink.path(path, '#ffffff', 'normal', null);
}

/** Takes points along the frame's own sides to the page. */
function within(frame: Frame): Matrix {
  return compose([1 / frame.width, 0, 0, 1 / frame.height, 0, 0], frameMatrix(frame));
}

function box(
  path: PathBuffer,
  map: Matrix,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  const corners = [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ].map((p) => transform(map, p));
  corners.forEach((p, i) => (i === 0 ? path.moveTo(p.x, p.y) : path.lineTo(p.x, p.y)));
  path.closePath();
}

/** How far control points of a quarter of a circle lie; the usual value, 4/3·(√2 − 1). */
const ROUND = 0.5523;

function disc(path: PathBuffer, { x, y }: Point, r: number): void {
  const k = r * ROUND;
  path.moveTo(x + r, y);
  path.bezierCurveTo(x + r, y + k, x + k, y + r, x, y + r);
  path.bezierCurveTo(x - k, y + r, x - r, y + k, x - r, y);
  path.bezierCurveTo(x - r, y - k, x - k, y - r, x, y - r);
  path.bezierCurveTo(x + k, y - r, x + r, y - k, x + r, y);
  path.closePath();
}
