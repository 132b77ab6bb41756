import jsQR from 'jsqr';
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

  it('is read by a decoder that isn’t ours (jsQR) as the link it is, small and large, and at an angle', () => {
    const link = 'https://lessons.example/join/dzphza3m8rdz8c2fq65gsjxr';
    const code = qrPath(link);
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = 500;
    const context = canvas.getContext('2d')!;
    for (const [side, turn] of [
      [120, 0],
      [300, 0],
      [300, 17],
    ] as const) {
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.fillStyle = '#fff';
      context.fillRect(0, 0, 500, 500);
      context.translate(250, 250);
      context.rotate((turn * Math.PI) / 180);
      context.scale(side / code.size, side / code.size);
      context.translate(-code.size / 2, -code.size / 2);
      context.fillStyle = '#1d2b4f';
      context.fill(new Path2D(code.path));
      const { data } = context.getImageData(0, 0, 500, 500);
      expect(jsQR(data, 500, 500)?.data)
        .withContext(`${side} px, turned by ${turn}`)
        .toBe(link);
    }
  });
});
