import type { InkItem } from '../board/index.js';
import { encodeStroke } from '../ink/index.js';
import type { InkStyle } from '../ink/index.js';
import { drawGrounds, SIGNED_LINE } from './index.js';

describe('names on every line', () => {
  const points = [10, 60, 110].map((x, i) => ({ x, y: 20, pressure: 0.5, time: i * 10 }));
  const line = (style: InkStyle): InkItem => ({
    ...{ kind: 'ink', id: style.tool, ink: encodeStroke({ style, points }) },
    ...{ by: 'ida', at: 1, lesson: null, removed: null },
  });
  const ida = { name: 'Ida', initials: 'I', colour: '#0072b2' };

  it('lie on a faint ground of their writer’s colour; a highlighter keeps its own colour', () => {
    const drawn: [string, number | null][] = [];
    drawGrounds(
      [
        line({ tool: 'pen', ink: 'coal', width: 2 }),
        line({ tool: 'highlighter', ink: 'lemon', width: 16 }),
      ],
      () => ida,
      {
        path: (_path, colour, _blend, width) => void drawn.push([colour, width]),
        image: () => undefined,
        text: () => undefined,
        outline: () => undefined,
      },
    );
    const [pen, mark] = drawn;
    expect(pen![0]).not.toBe(ida.colour);
    expect(pen![1]).toBeGreaterThan(2);
    // A fine line in the middle, and no tint over all of it.
    expect(mark).toEqual([ida.colour, SIGNED_LINE]);
  });
});
