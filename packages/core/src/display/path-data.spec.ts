import fc from 'fast-check';
import { readPathData, writePathData } from './path-data.js';
import { PathBuffer, STEP } from './path.js';
import type { Path } from './path.js';

describe('path data', () => {
  it('reads moves, lines, curves and closings (SVG 2, 9.3)', () => {
    const path = readPathData('M10 20L30,40 Q 1 2 3 4C1 2 3 4 5 6Z');
    expect(path.steps).toEqual([STEP.move, STEP.line, STEP.quad, STEP.cubic, STEP.close]);
    expect(path.numbers).toEqual([10, 20, 30, 40, 1, 2, 3, 4, 1, 2, 3, 4, 5, 6]);
  });

  it('takes places after a move for lines, and commands that go on (SVG 2, 9.3.3 and 9.3.9)', () => {
    expect(readPathData('M 1 1 2 2 3 3').steps).toEqual([STEP.move, STEP.line, STEP.line]);
    expect(readPathData('M0 0L1 1 2 2').steps).toEqual([STEP.move, STEP.line, STEP.line]);
  });

  it('parts numbers where the grammar does: at a sign, and at a second point (SVG 2, 9.3.9)', () => {
    expect(readPathData('M100-200').numbers).toEqual([100, -200]);
    expect(readPathData('M.5.25').numbers).toEqual([0.5, 0.25]);
    expect(readPathData('M1e2-1E-1').numbers).toEqual([100, -0.1]);
  });

  it('draws what comes before a mistake, and nothing after it (SVG 2, 9.5.4)', () => {
    for (const wrong of [
      'M1 2L3 4L5',
      'M1 2L3 4!L5 6',
      'M1 2L3 4;alert(1)',
      'M1 2L3 4A1 1 0 0 0 1 1',
    ])
      expect(readPathData(wrong).numbers).withContext(wrong).toEqual([1, 2, 3, 4]);
    expect(readPathData('L1 2').steps).toEqual([]);
    expect(readPathData('')).toEqual({ steps: [], numbers: [] });
  });

  it('writes what it reads', () => {
    const place = fc.integer({ min: -90_000, max: 90_000 }).map((n) => n / 100);
    const piece = fc.oneof(
      fc.tuple(fc.constant('M'), place, place),
      fc.tuple(fc.constant('L'), place, place),
      fc.tuple(fc.constant('Q'), place, place, place, place),
      fc.tuple(fc.constant('C'), place, place, place, place, place, place),
      fc.tuple(fc.constant('Z')),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 40 }), (pieces) => {
        const path = pathOf([['M', 1, 2], ...pieces]);
        expect(readPathData(writePathData(path, 2))).toEqual(path);
      }),
    );
  });
});

function pathOf(pieces: readonly (readonly [string, ...number[]])[]): Path {
  const path = new PathBuffer();
  for (const [letter, ...numbers] of pieces) {
    const [a, b, c, d, e, f] = numbers.map((n) => n + 0) as [
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    if (letter === 'M') path.moveTo(a, b);
    else if (letter === 'L') path.lineTo(a, b);
    else if (letter === 'Q') path.quadraticCurveTo(a, b, c, d);
    else if (letter === 'C') path.bezierCurveTo(a, b, c, d, e, f);
    else path.closePath();
  }
  return path.copy();
}
