import {
  encodeStroke,
  inverse,
  layOutText,
  lightness,
  MAX_COORDINATE,
  MAX_CORNERS,
  MAX_POINTS,
  MAX_TEXT,
  MIN_FRAME,
  nearestHighlight,
  nearestInk,
  NO_PRESSURE,
  thinPoints,
  ItemSpec,
  transform,
} from '@cuaderno/core';
import type { InkPoint, InkStyle, Matrix, Measure, Point, Rect, RichText } from '@cuaderno/core';
import { hexOf } from './annotation.js';
import type { Annotation } from './annotation.js';
import type { Own } from './own.js';
import type { Parsed } from './parse.js';

/** Sides longer than this, in points, are drawn as the straight lines that they are. */
const LONG = 8;
/** Milliseconds from one point to the next, where nobody says how fast it was drawn. */
const PACE = 10;
/** An ink of which so much is seen through, or one so light and wide, is a highlighter's. */
const SEEN_THROUGH = 0.8;
const LIGHT = 0.8;
const WIDE = 6;

/**
 * What an annotation that was made elsewhere is on a page of ours; none where there is nothing like it.
 * @param map from points on the page to the PDF's user space
 * @param measure of our plain font, in a size in points
 */
export function fromElsewhere(
  { annotation, opacity, turn }: Parsed,
  map: Matrix,
  measure: (size: number) => Measure,
): Own[] {
  const there = new There(annotation, map);
  switch (annotation.kind) {
    case 'Ink':
      return inkOf(annotation, opacity, there);
    case 'Highlight':
      return highlightsOf(annotation, there);
    case 'Underline':
    case 'StrikeOut':
    case 'Squiggly':
      return linesOf(annotation, there);
    case 'FreeText':
      return textOf(annotation, turn, there, measure);
    case 'Square':
    case 'Circle':
      return shapeOf(annotation, there);
    case 'Line':
    case 'PolyLine':
    case 'Polygon':
      return cornersOf(annotation, there);
    case 'Stamp':
      return [];
  }
}

/** Where it lies on our page. */
class There {
  private readonly back: Matrix;
  /** Points in a unit of user space. */
  readonly scale: number;

  constructor(
    private readonly annotation: Annotation,
    map: Matrix,
  ) {
    this.back = inverse(map);
    this.scale = Math.hypot(this.back[0], this.back[1]);
  }

  points(run: readonly number[]): Point[] {
    const points: Point[] = [];
    for (let i = 0; i + 1 < run.length; i += 2)
      points.push(transform(this.back, { x: run[i]!, y: run[i + 1]! }));
    if (points.some(({ x, y }) => Math.max(Math.abs(x), Math.abs(y)) > MAX_COORDINATE))
      throw new RangeError('It lies off every page.');
    return points;
  }

  /** How what is turned so in user space is turned on our page, clockwise: a quarter of a turn at a time, degrees. */
  turn(turned: number): number {
    const angle = (turned * Math.PI) / 180;
    const [a, b, c, d] = this.back;
    const [x, y] = [Math.cos(angle), Math.sin(angle)];
    const there = (Math.atan2(b * x + d * y, a * x + c * y) * 180) / Math.PI;
    return (((Math.round(there / 90) * 90) % 360) + 360) % 360;
  }

  box(): Rect {
    const [a, b] = this.points(this.annotation.rect) as [Point, Point];
    return {
      x: Math.min(a.x, b.x),
      y: Math.min(a.y, b.y),
      width: Math.abs(a.x - b.x),
      height: Math.abs(a.y - b.y),
    };
  }
}

function inkOf({ runs, colour, width }: Annotation, opacity: number, there: There): Own[] {
  const rgb = colour ?? [0, 0, 0];
  const wide = within(width * there.scale, 0.3, 100);
  const marks = opacity < SEEN_THROUGH || (wide >= WIDE && lightness(rgb) > LIGHT);
  const style: InkStyle = marks
    ? { tool: 'highlighter', ink: nearestHighlight(rgb), width: wide }
    : { tool: 'pen', ink: nearestInk(rgb), width: wide };
  return runs.flatMap((run) => strokesOf(style, there.points(run)));
}

/** Lines of ink through these points, as many as they need. */
function strokesOf(style: InkStyle, along: readonly Point[]): Own[] {
  const strokes: Own[] = [];
  const points = pinned(along);
  for (let from = 0; from === 0 || from < points.length - 1; from += MAX_POINTS - 1) {
    const some = points
      .slice(from, from + MAX_POINTS)
      .map(({ x, y }, i): InkPoint => ({ x, y, pressure: NO_PRESSURE, time: i * PACE }));
    strokes.push({
      kind: 'ink',
      ink: encodeStroke({ style, points: thinPoints(some, style.width) }),
    });
  }
  return strokes;
}

/** Our lines bend at their points without touching them. Where a side is long it is held at both its ends. */
function pinned(points: readonly Point[]): Point[] {
  return points.flatMap((p, i) => {
    const [before, after] = [points[i - 1], points[i + 1]];
    if (!before || !after) return [p];
    const longest = Math.max(
      Math.hypot(p.x - before.x, p.y - before.y),
      Math.hypot(after.x - p.x, after.y - p.y),
    );
    return longest > LONG ? [p, p] : [p];
  });
}

/** A line of the highlighter along each marked run of words. */
function highlightsOf({ runs, colour }: Annotation, there: There): Own[] {
  const ink = nearestHighlight(colour ?? [1, 1, 0]);
  return runOfWords(runs, there).flatMap(({ over, under }) => {
    const width = within(Math.hypot(over[0].x - under[0].x, over[0].y - under[0].y), 1, 100);
    const style: InkStyle = { tool: 'highlighter', ink, width };
    return strokesOf(style, [between(over[0], under[0], 0.5), between(over[1], under[1], 0.5)]);
  });
}

/** A line of the pen under each run of words, or through its middle; one that is wavy is straight with us. */
function linesOf({ kind, runs, colour }: Annotation, there: There): Own[] {
  const ink = nearestInk(colour ?? [0, 0, 0]);
  const at = kind === 'StrikeOut' ? STRUCK : UNDER;
  return runOfWords(runs, there).flatMap(({ over, under }) => {
    const high = Math.hypot(over[0].x - under[0].x, over[0].y - under[0].y);
    const style: InkStyle = { tool: 'pen', ink, width: within(high / 14, 0.5, 6) };
    return strokesOf(style, [between(over[0], under[0], at), between(over[1], under[1], at)]);
  });
}

/** How far below the upper edge of words a line under them lies, and one that strikes them out; by eye, no source. */
const UNDER = 0.93;
const STRUCK = 0.57;

function between(p: Point, q: Point, part: number): Point {
  return { x: p.x + (q.x - p.x) * part, y: p.y + (q.y - p.y) * part };
}

/** Both ends of the upper and of the lower edge of each run. */
function runOfWords(
  runs: Annotation['runs'],
  there: There,
): { over: readonly [Point, Point]; under: readonly [Point, Point] }[] {
  return runs.flatMap((run) =>
    Array.from({ length: Math.floor(run.length / 8) }, (_, i) => {
      const [a, b, c, d] = there.points(run.slice(i * 8, i * 8 + 8)) as [
        ...[Point, Point, Point, Point],
      ];
      // The lower two stand either way round: the nearer one is under the first.
      const turned = Math.hypot(a.x - d.x, a.y - d.y) < Math.hypot(a.x - c.x, a.y - c.y);
      return { over: [a, b] as const, under: turned ? ([d, c] as const) : ([c, d] as const) };
    }),
  );
}

function textOf(
  annotation: Annotation,
  turned: number,
  there: There,
  measure: (size: number) => Measure,
): Own[] {
  const words = annotation.contents.replace(/\r\n?/g, '\n').slice(0, MAX_TEXT);
  const how = annotation.words;
  if (words.trim() === '' || !how) return [];
  const text: RichText = words
    .split('\n')
    .map((line) => ({ runs: line === '' ? [] : [{ text: line }] }));
  const box = there.box();
  const turn = there.turn(turned);
  const across = turn % 180 !== 0;
  const size = within(how.size * there.scale, 2, 1000);
  const align = (['start', 'middle', 'end'] as const)[how.align];
  const width = Math.max(MIN_FRAME, across ? box.height : box.width);
  const { lines, height: needed } = layOutText(text, { size, width, align }, measure(size));
  const height = Math.max(across ? box.width : box.height, needed);
  // A frame is turned about its middle; its first line is at the edge that was the upper one.
  const grown = (height - (across ? box.width : box.height)) / 2;
  const angle = (turn * Math.PI) / 180;
  const middle = {
    x: box.x + box.width / 2 - Math.sin(angle) * grown,
    y: box.y + box.height / 2 + Math.cos(angle) * grown,
  };
  return item({
    kind: 'text',
    frame: { x: middle.x - width / 2, y: middle.y - height / 2, width, height, turn },
    text,
    font: 'plain',
    size,
    colour: hexOf(how.colour),
    align,
    slip: annotation.colour ? hexOf(annotation.colour) : null,
    lines,
  });
}

function shapeOf(annotation: Annotation, there: There): Own[] {
  const { kind, inset, width } = annotation;
  const { x, y, width: w, height: h } = there.box();
  // A border is drawn within its rectangle; ours lies on both sides of its outline.
  const edge = (inset > 0 ? inset : width / 2) * there.scale;
  return item({
    kind: 'shape',
    shape: kind === 'Square' ? 'box' : 'ellipse',
    frame: {
      x: x + edge,
      y: y + edge,
      width: Math.max(MIN_FRAME, w - 2 * edge),
      height: Math.max(MIN_FRAME, h - 2 * edge),
      turn: 0,
    },
    ...looks(annotation, there),
  });
}

function cornersOf(annotation: Annotation, there: There): Own[] {
  const points = there.points(annotation.runs[0]!);
  if (points.length < 2 || points.length > MAX_CORNERS) return [];
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [
    Math.max(MIN_FRAME, Math.max(...xs) - x),
    Math.max(MIN_FRAME, Math.max(...ys) - y),
  ];
  const closed = annotation.kind === 'Polygon';
  const [from, to] = (annotation.endings ?? []).map((ending) => ending.includes('Arrow'));
  const look = looks(annotation, there);
  const parts = points.map((p) => [(p.x - x) / width, (p.y - y) / height]);
  return item({
    kind: 'shape',
    shape: closed ? 'polygon' : 'line',
    frame: { x, y, width, height, turn: 0 },
    // A line's head is at its last end, or at both.
    points: from && !to ? parts.reverse() : parts,
    ...(closed ? {} : { heads: from && to ? 'both' : from || to ? 'end' : 'none' }),
    ...look,
    fill: closed ? look.fill : null,
  });
}

function looks(
  { colour, interior, width, dashed }: Annotation,
  there: There,
): {
  outline: object | null;
  fill: string | null;
} {
  const wide = width * there.scale;
  const outline =
    wide > 0
      ? {
          colour: hexOf(colour ?? [0, 0, 0]),
          width: within(wide, 0.25, 100),
          ...(dashed ? { dashed } : {}),
        }
      : null;
  return { outline, fill: interior ? hexOf(interior) : null };
}

/** Its place among the items of its page is found when it is laid there. */
function item(spec: object): Own[] {
  return [{ kind: 'placed', spec: ItemSpec.parse({ ...spec, order: 'a0', layer: 'ink' }) }];
}

function within(n: number, least: number, most: number): number {
  return Math.min(most, Math.max(least, n));
}
