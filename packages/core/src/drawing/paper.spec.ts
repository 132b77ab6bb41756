import { A4, MM } from '../board/index.js';
import type { Paper } from '../board/index.js';
import { contrast, INKS, isReadableTint, readableTint, TINTS } from '../ink/index.js';
import { DisplayListBuilder, trace } from '../display/index.js';
import { drawPaper } from './index.js';
import type { DisplayPath } from '../display/index.js';

function drawn(paper: Paper): DisplayPath[] {
  const list = new DisplayListBuilder();
  drawPaper(paper, A4, list);
  return list.done().filter((item) => item.kind === 'path');
}

/** Straight lines of a list, as from and to. */
function lines(list: DisplayPath[]): { x: number; y: number; u: number; v: number }[] {
  const out: { x: number; y: number; u: number; v: number }[] = [];
  for (const { path } of list) {
    let [x, y] = [0, 0];
    trace(path, {
      moveTo: (a, b) => void ([x, y] = [a, b]),
      lineTo: (u, v) => {
        out.push({ x, y, u, v });
        [x, y] = [u, v];
      },
      quadraticCurveTo: () => fail('no curves'),
      bezierCurveTo: () => fail('no curves'),
      closePath: () => undefined,
    });
  }
  return out;
}

describe('what papers look like', () => {
  it('plain is nothing at all', () => {
    expect(drawn({ kind: 'plain' })).toEqual([]);
  });

  it('5 mm squares are 5 mm, and a sheet of A4 has 42 by 59 lines, the same room all round', () => {
    const all = lines(drawn({ kind: 'squared', spacing: 5 * MM }));
    const upright = all.filter(({ x, u }) => x === u).map(({ x }) => x);
    const level = all.filter(({ y, v }) => y === v).map(({ y }) => y);
    expect([upright.length, level.length]).toEqual([42, 59]);
    upright.slice(1).forEach((x, i) => expect(x - upright[i]!).toBeCloseTo(5 * MM, 6));
    expect(upright[0]! + upright.at(-1)!).toBeCloseTo(A4.width, 6);
    expect(level[0]! + level.at(-1)!).toBeCloseTo(A4.height, 6);
  });

  it('ruled lines are as far apart as was said, across the whole page', () => {
    const all = lines(drawn({ kind: 'ruled', spacing: 8 * MM }));
    expect(all.every(({ x, u, y, v }) => x === 0 && u === A4.width && y === v)).toBeTrue();
    all.slice(1).forEach(({ y }, i) => expect(y - all[i]!.y).toBeCloseTo(8 * MM, 6));
  });

  it('dots lie where squares would cross', () => {
    const dots = lines(drawn({ kind: 'dotted', spacing: 5 * MM }));
    expect(dots.length).toBe(42 * 59);
    expect(dots.every(({ x, y, u, v }) => x === u && y === v)).toBeTrue();
  });

  it('a staff has five lines, as high together as was said', () => {
    const level = lines(drawn({ kind: 'staves', spacing: 7 * MM })).filter(({ y, v }) => y === v);
    expect(level.length % 5).toBe(0);
    expect(level[4]!.y - level[0]!.y).toBeCloseTo(7 * MM, 6);
    expect(level[5]!.y - level[4]!.y).toBeGreaterThan(7 * MM);
  });

  it('guide lines leave a small letter its height, above the line it stands on', () => {
    const list = drawn({ kind: 'guides', spacing: 4 * MM });
    const base = lines([list.at(-1)!])[0]!.y;
    const above = lines([list[1]!]).map(({ y }) => y);
    expect(above.some((y) => Math.abs(base - y - 4 * MM) < 1e-6)).toBeTrue();
    expect(above.some((y) => Math.abs(base - y - 8 * MM) < 1e-6)).toBeTrue();
    expect(above.some((y) => Math.abs(y - base - 4 * MM) < 1e-6)).toBeTrue();
  });

  it('all print lies on the page, and multiplies, so that it is darker than any tint', () => {
    for (const kind of ['ruled', 'squared', 'dotted', 'guides', 'staves'] as const) {
      const list = drawn({ kind, spacing: 9 * MM, tint: '#fbf0b8' });
      expect(list.every(({ blend }) => blend === 'multiply')).toBeTrue();
      expect(list[0]).toEqual(jasmine.objectContaining({ colour: '#fbf0b8', paint: 'fill' }));
      for (const { x, y, u, v } of lines(list))
        for (const [a, b] of [
          [x, y],
          [u, v],
        ])
          expect(a! >= 0 && a! <= A4.width && b! >= 0 && b! <= A4.height).toBeTrue();
    }
  });
});

describe('tints', () => {
  it('that are offered keep 3:1 for every ink and 7:1 for black (WCAG 2.2, 1.4.11 and 1.4.6)', () => {
    for (const { colour } of TINTS) {
      expect(isReadableTint(colour)).withContext(colour).toBeTrue();
      for (const ink of INKS) expect(contrast(ink.colour, colour)).toBeGreaterThanOrEqual(3);
      expect(contrast('#000000', colour)).toBeGreaterThanOrEqual(7);
    }
  });

  it('of one’s own become as light as they must, and no lighter', () => {
    expect(readableTint('#fdf6e0')).toBe('#fdf6e0');
    const red = readableTint('#ff0000');
    expect(isReadableTint(red)).toBeTrue();
    expect(red).not.toBe('#ffffff');
    expect(readableTint('#000000')).toMatch(/^#[0-9a-f]{6}$/);
  });
});
