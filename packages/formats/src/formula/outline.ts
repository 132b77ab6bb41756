import type { LiteAdaptor } from '@mathjax/src/js/adaptors/liteAdaptor.js';
import type { LiteElement } from '@mathjax/src/js/adaptors/lite/Element.js';
import svgPath from 'svgpath';
import { FormulaError } from './formula-error.js';
import type { SetFormula } from './set-formula.js';

interface OutlineRect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where what is drawn lies: the maps of all that is around it, inmost first, and what is cut off. */
interface OutlinePlace {
  readonly maps: readonly string[];
  /** In the units that hold after so many of the maps. */
  readonly window: { readonly of: OutlineRect; readonly after: number } | null;
}

/** Air around the outline, in its units: letters that lean out of their box aren't cut. */
const AIR = 40;
/** Widths of lines that the SVG leaves to its styles, in its units. */
const LINE = 60;

/**
 * All outlines of a formula as one, in thousandths of the size of its letters from the top left.
 * Throws `FormulaError` where it has letters that the formula font lacks.
 */
export function outlineOfSvg(adaptor: LiteAdaptor, svg: LiteElement): SetFormula {
  const [x, y, width, height] = viewBoxOf(adaptor, svg);
  const parts: string[] = [];
  const start = `translate(${AIR - x},${AIR - y})`;
  walk(adaptor, svg, { maps: [start], window: null }, parts);
  return {
    outline: parts.join(''),
    box: {
      width: Math.max(1, Math.ceil(width + 2 * AIR)),
      height: Math.max(1, Math.ceil(height + 2 * AIR)),
    },
  };
}

function walk(
  adaptor: LiteAdaptor,
  parent: LiteElement,
  around: OutlinePlace,
  parts: string[],
): void {
  for (const child of adaptor.childNodes(parent)) {
    const node = child as LiteElement;
    const kind = adaptor.kind(node);
    if (kind.startsWith('#')) continue;
    const of = (name: string): number => parseFloat(adaptor.getAttribute(node, name) || '0');
    const map = (adaptor.getAttribute(node, 'transform') as string | undefined) ?? '';
    const place = map ? { ...around, maps: [map, ...around.maps] } : around;
    if (kind === 'g') walk(adaptor, node, place, parts);
    else if (kind === 'svg') walk(adaptor, node, windowed(adaptor, node, place), parts);
    else if (kind === 'path') parts.push(drawn(adaptor.getAttribute(node, 'd'), place));
    else if (kind === 'rect')
      parts.push(drawn(box(of('x'), of('y'), of('width'), of('height')), place));
    else if (kind === 'line') {
      const width = of('stroke-width') || LINE;
      parts.push(drawn(bar(of('x1'), of('y1'), of('x2'), of('y2'), width), place));
    } else if (kind === 'text')
      throw new FormulaError(
        'letters',
        `Formulas can’t be written with “${adaptor.textContent(node)}”. Put it beside the formula as a text.`,
      );
  }
}

/** A part with a window of its own: what reaches out of it isn't seen. */
function windowed(adaptor: LiteAdaptor, node: LiteElement, { maps }: OutlinePlace): OutlinePlace {
  const of = (name: string): number => parseFloat(adaptor.getAttribute(node, name) || '0');
  const [x, y, width, height] = viewBoxOf(adaptor, node);
  const shift = `translate(${of('x') - x},${of('y') - y})`;
  return {
    maps: [shift, ...maps],
    window: { of: { x, y, width, height }, after: maps.length + 1 },
  };
}

function drawn(data: string, { maps, window }: OutlinePlace): string {
  const path = svgPath(data).abs().unshort();
  const inner = window ? maps.length - window.after : maps.length;
  for (const map of maps.slice(0, inner)) path.transform(map);
  // svgpath keeps maps for later; a window is in the units that hold here.
  let flat = lettersOnly(path);
  if (window) {
    flat = cut(flat, window.of);
    for (const map of maps.slice(inner)) flat.transform(map);
    flat = lettersOnly(flat);
  }
  return flat
    .round(0)
    .toString()
    .replace(/([A-Z]) /g, '$1')
    .replace(/ ?([A-Z]) ?/g, '$1');
}

/** The same path in moves, lines and curves alone. */
function lettersOnly(path: ReturnType<typeof svgPath>): ReturnType<typeof svgPath> {
  return path.abs().iterate(([kind, ...numbers], _i, x, y) => {
    if (kind === 'H') return [['L', numbers[0]!, y]];
    if (kind === 'V') return [['L', x, numbers[0]!]];
    return undefined;
  });
}

/**
 * Draws what reaches out of a window in to its edge. What is stretched in formulas are straight
 * bars, and of a bar this leaves what is in the window.
 */
function cut(path: ReturnType<typeof svgPath>, { x, y, width, height }: OutlineRect): typeof path {
  return path.iterate(([kind, ...numbers]) => [
    [
      kind,
      ...numbers.map((n, i) =>
        i % 2 === 0 ? Math.min(x + width, Math.max(x, n)) : Math.min(y + height, Math.max(y, n)),
      ),
    ],
  ]);
}

function box(x: number, y: number, width: number, height: number): string {
  return `M${x} ${y}L${x + width} ${y}L${x + width} ${y + height}L${x} ${y + height}Z`;
}

/** A line as an outline. */
function bar(x1: number, y1: number, x2: number, y2: number, width: number): string {
  const length = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [dx, dy] = [((y1 - y2) / length) * (width / 2), ((x2 - x1) / length) * (width / 2)];
  return `M${x1 + dx} ${y1 + dy}L${x2 + dx} ${y2 + dy}L${x2 - dx} ${y2 - dy}L${x1 - dx} ${y1 - dy}Z`;
}

function viewBoxOf(adaptor: LiteAdaptor, node: LiteElement): [number, number, number, number] {
  const numbers = String(adaptor.getAttribute(node, 'viewBox'))
    .split(/[\s,]+/)
    .map(Number);
  return numbers as [number, number, number, number];
}
