import { newId } from '@cuaderno/core';
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
    const stroke = newId();
    strokes.take({ kind: 'points', by, stroke, start, points: some });
    strokes.take({ kind: 'points', by, stroke, start: undefined, points: some });
    expect(strokes.all().map(({ page, points }) => [page, points.length])).toEqual([
      [start.page, 2],
    ]);
    strokes.take({ kind: 'end', by, stroke });
    expect(strokes.all()).toEqual([]);
  });

  it('are not shown to whoever came in the middle', () => {
    strokes.take({ kind: 'points', by, stroke: newId(), start: undefined, points: some });
    expect(strokes.all()).toEqual([]);
  });

  it('are forgotten when nothing more comes', () => {
    strokes.take({ kind: 'points', by, stroke: newId(), start, points: some });
    now = 60_000;
    strokes.take({ kind: 'end', by, stroke: newId() });
    expect(strokes.all()).toEqual([]);
  });
});
