import { frameMatrix, outlineOf, transform } from '@cuaderno/core';
import type { Matrix, PdfRect, ShapeSpec } from '@cuaderno/core';
import { rgbOf, round } from '../annotation.js';
import type { Annotation, AnnotationColour } from '../annotation.js';
import { flat, mapped, scaleOf } from '../mapping.js';
import { PLAIN } from '../plain.js';

/** Corners by which an ellipse that is turned is told. */
const ROUND = 48;

/** Lines, boxes and circles have words of their own in the standard; all others are polygons. */
export function shape(item: ShapeSpec, rect: PdfRect, map: Matrix): Annotation {
  const { outline, fill, heads = 'none' } = item;
  const width = outline ? round(outline.width * scaleOf(map)) : 0;
  const colour: AnnotationColour | null = outline ? rgbOf(outline.colour) : null;
  const interior = fill ? rgbOf(fill) : null;
  const common = { ...PLAIN, rect, colour, interior, width, dashed: outline?.dashed ?? false };
  const upright = item.frame.turn % 90 === 0;
  switch (item.shape) {
    case 'line': {
      const { points } = outlineOf(item);
      const endings = [
        heads === 'both' ? 'ClosedArrow' : 'None',
        heads === 'none' ? 'None' : 'ClosedArrow',
      ] as const;
      const runs = [mapped(flat(points), map)];
      // The inside of a line is that of its heads.
      const inside = heads === 'none' ? null : colour;
      return {
        ...common,
        kind: points.length === 2 ? 'Line' : 'PolyLine',
        interior: inside,
        runs,
        endings,
      };
    }
    case 'box':
      if (upright) return { ...common, kind: 'Square', inset: round(width / 2) };
      break;
    case 'ellipse': {
      if (upright) return { ...common, kind: 'Circle', inset: round(width / 2) };
      const matrix = frameMatrix(item.frame);
      const points = Array.from({ length: ROUND }, (_, i) => {
        const angle = (2 * Math.PI * i) / ROUND;
        return transform(matrix, { x: 0.5 + Math.cos(angle) / 2, y: 0.5 + Math.sin(angle) / 2 });
      });
      return { ...common, kind: 'Polygon', runs: [mapped(flat(points), map)] };
    }
    default:
  }
  return { ...common, kind: 'Polygon', runs: [mapped(flat(outlineOf(item).points), map)] };
}
