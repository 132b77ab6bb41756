import type { DrawnPaper, PageSize, Paper } from '../board/index.js';
import type { DisplaySink } from '../display/index.js';
import { PathBuffer } from '../display/index.js';

/** Colours of what is printed; laid on by multiplying, they are darker than any tint. */
const LINE = '#b9c6da';
const STRONG = '#8fa3c2';
const LANE = '#eef2f8';
const STAFF = '#6b7690';

/** Widths in points. */
const HAIR = 0.5;
const FIRM = 0.8;
const DOT = 1.3;
/** Space kept free at a page's edges beside staves and guide lines, in points: 15 mm. */
const EDGE = 42.5;

/** What a paper looks like: its tint, then its lines. An imported page has its tint only. */
export function drawPaper(paper: Paper, { width, height }: PageSize, sink: DisplaySink): void {
  const path = new PathBuffer();
  if (paper.tint) {
    box(path, 0, 0, width, height);
    sink.path(path, paper.tint, 'multiply', null);
  }
  if (paper.kind !== 'pdf') PRINTS[paper.kind]({ width, height }, spacingOf(paper), sink);
}

function spacingOf(paper: DrawnPaper): number {
  return paper.kind === 'plain' ? 0 : paper.spacing;
}

type Print = (size: PageSize, spacing: number, sink: DisplaySink) => void;

const PRINTS: Record<DrawnPaper['kind'], Print> = {
  plain: () => undefined,
  ruled({ width, height }, spacing, sink) {
    const path = new PathBuffer();
    // Two lines' room for a heading.
    for (let y = 2 * spacing + 20; y < height - spacing / 2; y += spacing) level(path, 0, width, y);
    sink.path(path, LINE, 'multiply', HAIR);
  },
  squared({ width, height }, spacing, sink) {
    const path = new PathBuffer();
    for (const x of evenly(width, spacing)) upright(path, x, height);
    for (const y of evenly(height, spacing)) level(path, 0, width, y);
    sink.path(path, LINE, 'multiply', HAIR);
  },
  dotted({ width, height }, spacing, sink) {
    const path = new PathBuffer();
    for (const y of evenly(height, spacing))
      for (const x of evenly(width, spacing)) level(path, x, x, y);
    sink.path(path, STRONG, 'multiply', DOT);
  },
  guides({ width, height }, spacing, sink) {
    const lanes = new PathBuffer();
    const thin = new PathBuffer();
    const base = new PathBuffer();
    // Above the small letters as much room as they have, and below; then one more to the next line.
    for (let y = EDGE; y + 3 * spacing < height - EDGE / 2; y += 4 * spacing) {
      box(lanes, 0, y + spacing, width, spacing);
      for (const step of [0, 1, 3]) level(thin, 0, width, y + step * spacing);
      level(base, 0, width, y + 2 * spacing);
    }
    sink.path(lanes, LANE, 'multiply', null);
    sink.path(thin, LINE, 'multiply', HAIR);
    sink.path(base, STRONG, 'multiply', FIRM);
  },
  staves({ width, height }, spacing, sink) {
    const path = new PathBuffer();
    // One and a half staves' room between two: for ledger lines and for words.
    for (let y = EDGE * 1.5; y + spacing < height - EDGE; y += 2.5 * spacing) {
      for (let line = 0; line < 5; line++)
        level(path, EDGE, width - EDGE, y + (line * spacing) / 4);
      for (const x of [EDGE, width - EDGE]) {
        path.moveTo(x, y);
        path.lineTo(x, y + spacing);
      }
    }
    sink.path(path, STAFF, 'multiply', HAIR);
  },
};

/** Places `spacing` apart, with the same room at both ends, which is half of it at least. */
function evenly(length: number, spacing: number): number[] {
  const count = Math.max(0, Math.floor(length / spacing - 1 + 1e-9));
  const first = (length - count * spacing) / 2;
  return Array.from({ length: count + 1 }, (_, i) => first + i * spacing);
}

function level(path: PathBuffer, from: number, to: number, y: number): void {
  path.moveTo(from, y);
  path.lineTo(to, y);
}

function upright(path: PathBuffer, x: number, height: number): void {
  path.moveTo(x, 0);
  path.lineTo(x, height);
}

function box(path: PathBuffer, x: number, y: number, width: number, height: number): void {
  path.moveTo(x, y);
  path.lineTo(x + width, y);
  path.lineTo(x + width, y + height);
  path.lineTo(x, y + height);
  path.closePath();
}
