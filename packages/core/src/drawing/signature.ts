import { InkColumns, readStroke } from '../ink/index.js';
import type { Point } from '../geometry/index.js';
import type { Item } from '../board/index.js';
import { corners } from '../geometry/index.js';
import { eastAsianIn } from '../text/index.js';
import type { DisplaySink } from '../display/index.js';
import { drawLine } from '../display/index.js';
import { PathBuffer } from '../display/index.js';

/** Who somebody is, as it is shown by what they wrote. */
export interface Author {
  readonly name: string;
  readonly initials: string;
  /** `#rrggbb` */
  readonly colour: string;
}

/** By how much the ground of a line is wider than the line, in points, and how much of its colour it has. */
const GROUND = 6;
const TINT = 0.34;
/** Width of the line that says whose a highlighter's mark is, in points. */
export const SIGNED_LINE = 1.2;
/** A line that begins nearer than this to one that is signed already isn't signed again, in points. */
const SAME_PLACE = 40;
/** Most signatures on a page: what is beyond would hide more than it says. */
const MAX_SIGNED = 120;
/** Size of initials, and height of the tag that they stand on, in points. */
const LETTERS = 8.5;
const TAG = 12.5;

const columns = new InkColumns();

/**
 * Whose what is: each of these items on a ground of its writer's colour. To be drawn before they are, so that
 * they stay as sharp as they were.
 */
export function drawGrounds(
  items: readonly Item[],
  authorOf: (id: string) => Author | null,
  sink: DisplaySink,
): void {
  for (const item of items) {
    const who = authorOf(item.by);
    if (!who) continue;
    const ground = faint(who.colour);
    if (item.kind === 'ink') {
      const { tool, width } = readStroke(item.ink, columns);
      // A highlighter's colour means something: a fine line in its middle says whose it is.
      if (tool === 'highlighter') drawLine(columns, who.colour, 'multiply', SIGNED_LINE, sink);
      else drawLine(columns, ground, 'multiply', width + GROUND, sink);
    } else {
      const path = new PathBuffer();
      corners(item.frame).forEach(({ x, y }, i) =>
        i === 0 ? path.moveTo(x, y) : path.lineTo(x, y),
      );
      path.closePath();
      sink.path(path, ground, 'multiply', GROUND / 2);
    }
  }
}

/** Initials on a tag of their colour, where somebody begins to write. To be drawn over all else. */
export function drawSignatures(
  items: readonly Item[],
  authorOf: (id: string) => Author | null,
  measure: (words: string, size: number) => number,
  sink: DisplaySink,
): void {
  const signed: { by: string; at: Point }[] = [];
  for (const item of items) {
    if (!authorOf(item.by)) continue;
    const at = startOf(item);
    if (!signed.some((one) => one.by === item.by && near(one.at, at)))
      signed.push({ by: item.by, at });
  }
  for (const { by, at } of signed.slice(-MAX_SIGNED)) {
    const { initials, colour } = authorOf(by)!;
    const wide = measure(initials, LETTERS);
    const eastAsian = eastAsianIn(initials);
    const width = Math.max(TAG, wide + 7);
    const [x, y] = [Math.max(1, at.x - 6), Math.max(1, at.y - TAG - 5)];
    const path = new PathBuffer();
    pill(path, x, y, width, TAG);
    sink.path(path, colour, 'normal', null);
    sink.path(path, '#ffffff', 'normal', 0.75);
    sink.text({
      kind: 'text',
      text: initials,
      font: 'plain',
      bold: true,
      slant: false,
      size: LETTERS,
      colour: isLight(colour) ? '#1a1a1a' : '#ffffff',
      width: wide,
      rtl: false,
      ...(eastAsian.length > 0 ? { eastAsian } : {}),
      matrix: [1, 0, 0, 1, x + (width - wide) / 2, y + TAG - 3.4],
    });
  }
}

function startOf(item: Item): Point {
  if (item.kind !== 'ink') return { x: item.frame.x, y: item.frame.y };
  readStroke(item.ink, columns);
  return { x: columns.x[0]!, y: columns.y[0]! };
}

function near(a: Point, b: Point): boolean {
  return Math.hypot(a.x - b.x, a.y - b.y) < SAME_PLACE;
}

/** A box whose short sides are round. */
function pill(path: PathBuffer, x: number, y: number, width: number, height: number): void {
  const r = height / 2;
  // How far control points lie out for a quarter of a circle.
  const k = r * 0.5523;
  const [right, bottom] = [x + width, y + height];
  path.moveTo(x + r, y);
  path.lineTo(right - r, y);
  path.bezierCurveTo(right - r + k, y, right, y + r - k, right, y + r);
  path.bezierCurveTo(right, y + r + k, right - r + k, bottom, right - r, bottom);
  path.lineTo(x + r, bottom);
  path.bezierCurveTo(x + r - k, bottom, x, bottom - r + k, x, bottom - r);
  path.bezierCurveTo(x, y + r - k, x + r - k, y, x + r, y);
  path.closePath();
}

/** A colour laid thinly on white. */
function faint(colour: string): string {
  return `#${parts(colour)
    .map((part) => Math.round(255 - (255 - part) * TINT))
    .map((part) => part.toString(16).padStart(2, '0'))
    .join('')}`;
}

/** Whether dark letters are read on it more easily. */
export function isLight(colour: string): boolean {
  const [r, g, b] = parts(colour);
  return 0.299 * r + 0.587 * g + 0.114 * b > 140;
}

function parts(colour: string): [number, number, number] {
  return [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16)) as [number, number, number];
}
