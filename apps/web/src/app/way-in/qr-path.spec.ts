import { qrPath } from './qr-path';

describe('the join link as a picture', () => {
  const { size, path } = qrPath('https://lessons.example/join/7k2m9qw3');
  const dark = new Set([...path.matchAll(/M(\d+) (\d+)h1/g)].map(([, x, y]) => `${x},${y}`));
  const is = (x: number, y: number): boolean => dark.has(`${x},${y}`);

  it('is a symbol with its three finders, and four light squares around it (ISO/IEC 18004, 6.3 and 9.1)', () => {
    // 17 squares and 4 for each version.
    expect((size - 8 - 17) % 4).toBe(0);
    const far = size - 4 - 7;
    for (const [left, top] of [
      [4, 4],
      [far, 4],
      [4, far],
    ] as const)
      for (let y = 0; y < 7; y++)
        for (let x = 0; x < 7; x++) {
          const ring = Math.max(Math.abs(x - 3), Math.abs(y - 3));
          expect(is(left + x, top + y)).toBe(ring !== 2);
        }
    for (let i = 0; i < size; i++)
      for (let edge = 0; edge < 4; edge++)
        expect(is(i, edge) || is(edge, i) || is(i, size - 1 - edge)).toBeFalse();
  });

  it('has its timing squares in turns (ISO/IEC 18004, 6.3.5)', () => {
    for (let i = 8; i < size - 8 - 8; i++) expect(is(4 + i, 4 + 6)).toBe(i % 2 === 0);
  });
});
