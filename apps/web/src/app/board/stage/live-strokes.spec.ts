import { newId } from '@cuaderno/core/id';
import { LiveStrokes } from './live-strokes';

describe('strokes of others under way', () => {
  let now = 0;
  let strokes: LiveStrokes;
  const by = newId();
  const start = { page: newId(), style: { tool: 'pen', ink: 'fern', width: 2.4 } } as const;
  const some = [{ x: 1, y: 2, pressure: 0.5, time: 0 }];

  beforeEach(() => {
    now = 0;
    strokes = new LiveStrokes(() => now);
  });

  it('grow piece by piece, and go when they end', () => {
    strokes.receive({ kind: 'points', n: 3, by, start, points: some });
    strokes.receive({ kind: 'points', n: 3, by, start: undefined, points: some });
    expect(strokes.all().map(({ page, points }) => [page, points.length])).toEqual([
      [start.page, 2],
    ]);
    strokes.receive({ kind: 'end', n: 3, item: null });
    expect(strokes.all()).toEqual([]);
  });

  it('stay while the line that they are is on its way, and give way to others of their number', () => {
    strokes.receive({ kind: 'points', n: 3, by, start, points: some });
    const item = newId();
    strokes.receive({ kind: 'end', n: 3, item });
    expect(strokes.all().map((one) => one.item)).toEqual([item]);
    strokes.receive({ kind: 'points', n: 3, by, start, points: some });
    expect(strokes.all().map((one) => [one.item, one.points.length])).toEqual([[null, 1]]);
    strokes.settle(3);
    expect(strokes.all()).toEqual([]);
  });

  it('are not shown to anyone who came in the middle', () => {
    strokes.receive({ kind: 'points', n: 4, by, start: undefined, points: some });
    expect(strokes.all()).toEqual([]);
  });

  it('are forgotten when nothing more comes', () => {
    strokes.receive({ kind: 'points', n: 4, by, start, points: some });
    now = 60_000;
    strokes.receive({ kind: 'end', n: 5, item: null });
    expect(strokes.all()).toEqual([]);
  });
});
