import { inkColour } from '@cuaderno/core/ink';
import { hasMarks, nearestTick, withMarked } from '@cuaderno/core/kinds';
import { RulerDimensionLine } from 'lucide';
import { PLAIN_KIND } from '../kind';
import type { WebKind } from '../kind';
import { NumberLineOptions } from './options';
import { marking, numberLineStyle } from './style';

/** Usual sides, and the height of one whose width was drawn, in points. */
const USUAL = { width: 400, height: 90 } as const;
const LEAST = 60;

export const numberLine: WebKind<'number-line'> = {
  ...PLAIN_KIND,
  tools: [{ tool: 'number-line', label: 'Number line', key: 'N', icon: RulerDimensionLine }],
  // What is marked stands out by its colour; a line on which nothing is marked takes it itself.
  colour: (line) => (hasMarks(line) ? line.accent : line.colour),
  recoloured: (line, colour) => (hasMarks(line) ? { accent: colour } : { colour }),
  stretches: true,
  lay({ from, points, touch }, tools) {
    // Anyone who marks and misses the line has meant no new one.
    if (marking()) return null;
    const to = points.at(-1)!;
    const width = touch ? USUAL.width : Math.max(LEAST, Math.abs(to.x - from.x));
    const high = Math.abs(to.y - from.y);
    // Most draw along the line and hardly down: then it is as high as usual around that.
    const height = !touch && high >= LEAST / 2 ? high : Math.min(USUAL.height, width / 2);
    const top = !touch && high >= LEAST / 2 ? Math.min(from.y, to.y) : from.y - height / 2;
    return {
      ...{ kind: 'number-line', layer: tools.aidLayer(), ...numberLineStyle.value() },
      ...{ colour: inkColour('coal'), accent: inkColour(tools.pen().ink) },
      ...{ points: [], jumps: [], intervals: [] },
      frame: {
        x: touch ? from.x - width / 2 : Math.min(from.x, to.x),
        ...{ y: top, width, height, turn: 0 },
      },
    };
  },
  edit(line) {
    const mark = marking();
    if (!mark) return null;
    return (from, to) => withMarked(line, mark, nearestTick(line, from), nearestTick(line, to));
  },
  options: NumberLineOptions,
};
