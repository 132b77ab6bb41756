import { box } from '../box.js';
import { itemKind } from '../kind.js';
import { drawNumberLine } from './draw.js';
import { decimal, numberWords } from './labels.js';
import { numberRange, shownLabels, ticks } from './scale.js';
import { NumberLineSpec } from './spec.js';

export * from './digits.js';
export * from './fraction.js';
export { decimal, numberWords } from './labels.js';
export * from './marked.js';
export { nearestTick, numberRange, numberScale, placeOfNumber, ticks } from './scale.js';
export * from './spec.js';

export const numberLine = itemKind({
  ...box,
  schema: NumberLineSpec,
  defaults: {},
  lasting: [],
  isWriting: true,
  draw: drawNumberLine,
  words: (line) =>
    shownLabels(line)
      .map(({ value }) => numberWords(value, line.labels))
      .join(' '),
  spoken(line) {
    const [from, to] = numberRange(line);
    const say = (value: number): string => numberWords(value, line.labels);
    const { points, jumps, intervals } = line;
    return [
      `Number line from ${decimal(from)} to ${decimal(to)}, ${ticks(line).length} ticks, one every ${say(line.step)}`,
      ...points.map(({ at, open }) => `${open ? 'open point' : 'point'} at ${say(at)}`),
      ...jumps.map((jump) => `jump from ${say(jump.from)} to ${say(jump.to)}`),
      ...intervals.map(
        (one) =>
          `interval from ${say(one.from)}${one.openFrom ? ' (not included)' : ''} to ${say(one.to)}${one.openTo ? ' (not included)' : ''}`,
      ),
    ].join('; ');
  },
});
