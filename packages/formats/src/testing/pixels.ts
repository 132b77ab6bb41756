import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A page as another program draws it: one pixel for each point. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  /** Red, green and blue, each from 0 to 255, at a place in points from the top left. */
  at(x: number, y: number): readonly [number, number, number];
}

/** Programs that draw PDFs: poppler and MuPDF. */
export const DRAWN_BY = ['pdftoppm', 'mutool'] as const;

/** Page `number`, from 1, as one of them draws it. */
export function pixelsOf(
  pdf: Uint8Array,
  number: number,
  program: (typeof DRAWN_BY)[number],
): Pixels {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-pixels-'));
  const path = join(folder, 'file.pdf');
  writeFileSync(path, pdf);
  const n = String(number);
  if (program === 'mutool')
    execFileSync('mutool', ['draw', '-q', '-r', '72', '-o', join(folder, 'page.ppm'), path, n]);
  else
    execFileSync('pdftoppm', [
      ...['-r', '72', '-f', n, '-l', n, '-singlefile', '-cropbox', path, join(folder, 'page')],
    ]);
  return read(readFileSync(join(folder, 'page.ppm')));
}

/** A picture in Netpbm's P6: a head of three numbers, then three bytes a pixel. */
function read(bytes: Uint8Array): Pixels {
  const head = /^P6\s+(\d+)\s+(\d+)\s+255\s/.exec(
    new TextDecoder('latin1').decode(bytes.subarray(0, 60)),
  )!;
  const [width, height] = [Number(head[1]), Number(head[2])];
  return {
    width,
    height,
    at(x, y) {
      const from = head[0].length + (Math.floor(y) * width + Math.floor(x)) * 3;
      return [bytes[from]!, bytes[from + 1]!, bytes[from + 2]!];
    },
  };
}
