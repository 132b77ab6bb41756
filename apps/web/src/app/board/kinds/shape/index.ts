import { inkColour } from '@cuaderno/core';
import { Shapes } from 'lucide';
import { cornersOf, even, frameAround, lineBetween, usual } from '../drawn';
import { PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';
import { fillOf } from './fill';

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
  stretches: true,
  lay({ from, points, zoom, touch }, tools) {
    const { figure, ink, width, filled, dashed } = tools.figure();
    const to = points.at(-1)!;
    const colour = inkColour(ink);
    const outline = { colour, width, ...(dashed ? { dashed } : {}) };
    const common = { kind: 'shape', layer: tools.layer(), outline } as const;
    if (figure === 'line' || figure === 'arrow' || figure === 'arrows') {
      const heads = figure === 'arrow' ? 'end' : figure === 'arrows' ? 'both' : 'none';
      const end = touch ? { x: from.x + USUAL.width, y: from.y } : even(from, to);
      return { ...common, shape: 'line', fill: null, heads, ...lineBetween([from, end]) };
    }
    const inside = { ...common, shape: figure, fill: filled ? fillOf(colour) : null };
    if (figure === 'polygon') {
      const corners = cornersOf(points, zoom);
      return corners ? { ...inside, ...lineBetween(corners) } : null;
    }
    const frame = touch
      ? { ...usual(from, USUAL.width), height: USUAL.height }
      : frameAround([from, to]);
    return { ...inside, frame };
  },
};
