import type { ClientMessage } from '@cuaderno/core/features';
import { newId } from '@cuaderno/core/id';
import type { InkPoint } from '@cuaderno/core/ink';
import { InkSender } from './live-ink';

/** The beginning of a stroke as the server passes it on. */
function told({ start, points }: Extract<ClientMessage, { kind: 'live.ink' }>) {
  return { kind: 'live.ink', on: 4, start, points } as const;
}

describe('strokes under way, as messages', () => {
  const [board, stroke, by] = [newId(), newId(), newId()];
  const start = { page: newId(), style: { tool: 'pen', ink: 'fern', width: 2.4 } } as const;
  const at = (x: number, y: number): InkPoint => ({ x, y, pressure: 0.5, time: 0 });

  it('are heard as they were drawn, to a sixteenth of a point', () => {
    const [mine, theirs] = [new InkSender(), new InkSender()];
    const first = mine.outgoing(board, stroke, start, [at(100.3, 50), at(101, 51)]);
    const next = mine.outgoing(board, stroke, undefined, [at(104.62, 49.11), at(110, 44)]);
    if (first?.kind !== 'live.ink' || next?.kind !== 'live.more') return fail('not as expected');
    const began = theirs.incoming({ ...told(first), by, n: 7 });
    const heard = theirs.incoming({ ...next, n: 7 })?.event;
    expect(began?.event).toEqual(jasmine.objectContaining({ kind: 'points', n: 7, by, start }));
    if (heard?.kind !== 'points') return fail('nothing was heard');
    expect([heard.n, heard.by]).toEqual([7, by]);
    heard.points.forEach(({ x, y }, i) => {
      expect(Math.abs(x - [104.62, 110][i]!)).toBeLessThanOrEqual(1 / 16);
      expect(Math.abs(y - [49.11, 44][i]!)).toBeLessThanOrEqual(1 / 16);
    });
  });

  it('are nothing where their beginning wasn’t told, on either side', () => {
    const ink = new InkSender();
    expect(ink.outgoing(board, stroke, undefined, [at(1, 1)])).toBeNull();
    const told = new InkSender();
    told.outgoing(board, stroke, start, [at(1, 1)]);
    const more = told.outgoing(board, stroke, undefined, [at(2, 2)]);
    if (more?.kind !== 'live.more') return fail('not as expected');
    expect(ink.incoming({ ...more, n: 3 })).toBeNull();
  });

  it('are heard to their end, however many others begin and end meanwhile', () => {
    const [mine, theirs] = [new InkSender(), new InkSender()];
    const first = mine.outgoing(board, stroke, start, [at(1, 1)]);
    const more = mine.outgoing(board, stroke, undefined, [at(2, 2)]);
    if (first?.kind !== 'live.ink' || more?.kind !== 'live.more') return fail('not as expected');
    theirs.incoming({ ...told(first), by, n: 1 });
    for (let n = 2; n < 300; n++) {
      theirs.incoming({ ...told(first), by: newId(), n });
      expect(theirs.incoming({ ...more, n: 1 })).not.toBeNull();
    }
  });

  it('have other numbers after a break', () => {
    const [mine, theirs] = [new InkSender(), new InkSender()];
    const first = mine.outgoing(board, stroke, start, [at(1, 1)]);
    const more = mine.outgoing(board, stroke, undefined, [at(2, 2)]);
    if (first?.kind !== 'live.ink' || more?.kind !== 'live.more') return fail('not as expected');
    theirs.incoming({ ...told(first), by, n: 0 });
    theirs.forget();
    expect(theirs.incoming({ ...more, n: 0 })).toBeNull();
    mine.forget();
    expect(mine.outgoing(board, stroke, undefined, [at(3, 3)])).toBeNull();
  });
});
