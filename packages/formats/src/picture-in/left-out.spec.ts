import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { leftOutOf, sniffPicture } from './index.js';

const folder = mkdtempSync(join(tmpdir(), 'cuaderno-left-out-'));

/** A coloured picture of so many frames, as ffmpeg writes it. */
function moving(frames: number, name: string, ...how: string[]): Uint8Array {
  const path = join(folder, `${frames}-${name}`);
  const source = ['-f', 'lavfi', '-i', 'testsrc=size=32x24:rate=10'];
  const out = ['-frames:v', String(frames), ...how, path];
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...source, ...out]);
  return new Uint8Array(readFileSync(path));
}

const of = (bytes: Uint8Array) => leftOutOf(bytes, sniffPicture(bytes).type);

describe('what of a picture isn’t kept (pictures made by ffmpeg)', () => {
  it('is all but the first frame of one that moves', () => {
    expect(of(moving(5, 'a.gif'))).toBe('frames');
    expect(of(moving(1, 'a.gif'))).toBeNull();
    expect(of(moving(4, 'a.png', '-f', 'apng', '-plays', '0'))).toBe('frames');
    expect(of(moving(1, 'b.png'))).toBeNull();
    expect(of(moving(4, 'a.webp', '-c:v', 'libwebp_anim'))).toBe('frames');
    expect(of(moving(1, 'b.webp', '-c:v', 'libwebp'))).toBeNull();
  });

  it('is HTML in an SVG', () => {
    const svg = (inner: string): Uint8Array =>
      new TextEncoder().encode(`<svg xmlns="http://www.w3.org/2000/svg">${inner}</svg>`);
    expect(of(svg('<foreignObject width="9" height="9"><p>Ebb</p></foreignObject>'))).toBe('html');
    expect(of(svg('<svg:foreignObject/>'))).toBe('html');
    expect(of(svg('<rect width="9" height="9"/>'))).toBeNull();
  });

  it('is looked for without end in no file', () => {
    const gif = moving(2, 'c.gif');
    for (let cut = 13; cut < gif.length; cut += 7) leftOutOf(gif.slice(0, cut), 'gif');
    writeFileSync(join(folder, 'x'), gif);
    expect(leftOutOf(new Uint8Array(20).fill(0x21), 'gif')).toBeNull();
  });
});
