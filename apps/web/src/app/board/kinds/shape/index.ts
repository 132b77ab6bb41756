import { inkColour } from '@cuaderno/core/ink';
import { Shapes } from 'lucide';
import { cornersOf, even, frameAround, lineBetween, usual } from '../drawn';
import { PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';
import { fillOf } from './fill';
import { ShapeOptions } from './options';
import { shapeStyle } from './style';

/** Usual sides in points. */
const USUAL = { width: 120, height: 80 } as const;

export const shape: WebKind<'shape'> = {
  ...PLAIN_KIND,
  tools: [{ tool: 'shape', label: 'Shapes', key: 'G', icon: Shapes }],
  colour: ({ outline }) => outline?.colour ?? null,
  // What it is filled with follows.
  recoloured: ({ outline, fill }, colour) => ({
    outline: outline && { ...outline, colour },
    fill: fill && fillOf(colour),
  }),
  next: shapeStyle,
  lines: {
    width: ({ outline }) => outline?.width ?? null,
    widened: ({ outline }, width) => ({ outline: outline && { ...outline, width } }),
  },
  stretches: true,
  lay({ from, points, zoom, touch }, tools) {
    const { shape, ink, width, filled, dashed } = shapeStyle.value();
    const to = points.at(-1)!;
    const colour = inkColour(ink);
    const outline = { colour, width, ...(dashed ? { dashed } : {}) };
    const common = { kind: 'shape', layer: tools.layer(), outline } as const;
    if (shape === 'line' || shape === 'arrow' || shape === 'arrows') {
      const heads = shape === 'arrow' ? 'end' : shape === 'arrows' ? 'both' : 'none';
      const end = touch ? { x: from.x + USUAL.width, y: from.y } : even(from, to);
      return { ...common, shape: 'line', fill: null, heads, ...lineBetween([from, end]) };
    }
    const inside = { ...common, shape, fill: filled ? fillOf(colour) : null };
    if (shape === 'polygon') {
      const corners = cornersOf(points, zoom);
      return corners ? { ...inside, ...lineBetween(corners) } : null;
    }
    const frame = touch
      ? { ...usual(from, USUAL.width), height: USUAL.height }
      : frameAround([from, to]);
    return { ...inside, frame };
  },
  options: ShapeOptions,
};
