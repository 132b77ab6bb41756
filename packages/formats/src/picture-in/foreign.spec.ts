import { foreignPicture } from './foreign.js';
import { heifSize, isAvif, isHeic } from './heif.js';
import { isWholeJpeg } from './jpeg.js';
import { PictureError } from './picture-error.js';
import { sniffPicture } from './sniff.js';

const bytes = (...parts: (string | number[])[]): Uint8Array =>
  Uint8Array.from(
    parts.flatMap((part) =>
      typeof part === 'string' ? [...part].map((c) => c.charCodeAt(0)) : part,
    ),
  );
const ftyp = (chief: string, ...others: string[]): Uint8Array =>
  bytes(
    [0, 0, 0, 16 + 4 * others.length],
    'ftyp',
    chief,
    [0, 0, 0, 0],
    ...others,
    [0, 0, 0, 8],
    'free',
  );

describe('pictures of kinds that can’t be taken', () => {
  it('are told apart by their first bytes', () => {
    expect(foreignPicture(bytes('II*\0', [8, 0, 0, 0]))).toBe('tiff');
    expect(foreignPicture(bytes('MM\0*', [0, 0, 0, 8]))).toBe('tiff');
    expect(foreignPicture(bytes([0, 0, 1, 0, 1, 0, 16, 16]))).toBe('ico');
    expect(foreignPicture(bytes([0x1f, 0x8b, 8, 0]))).toBe('svgz');
    expect(foreignPicture(bytes([0xff, 0x0a, 1]))).toBe('jxl');
    expect(foreignPicture(bytes('8BPS', [0, 1]))).toBe('psd');
  });

  it('are not those that telephones take', () => {
    for (const photo of [ftyp('heic', 'mif1', 'heic'), ftyp('mif1', 'heic')]) {
      expect(foreignPicture(photo)).toBeNull();
      expect(isHeic(photo)).toBeTrue();
    }
    expect(isHeic(ftyp('avif', 'mif1', 'miaf'))).toBeFalse();
  });

  it('are no films, no JPEGs, and nothing that is taken', () => {
    for (const other of [
      ftyp('isom', 'iso2', 'avc1', 'mp41'),
      ftyp('qt  '),
      bytes([0xff, 0xd8, 0xff, 0xe0]),
      bytes('\x89PNG\r\n\x1a\n'),
      bytes('<svg xmlns="http://www.w3.org/2000/svg">'),
      bytes(''),
    ]) {
      expect(foreignPicture(other)).toBeNull();
      expect(isAvif(other) || isHeic(other)).toBeFalse();
    }
  });
});

describe('an AVIF picture', () => {
  const avif = (width: number[], height: number[]): Uint8Array =>
    bytes(
      [...ftyp('avif', 'mif1', 'miaf')],
      [0, 0, 0, 20],
      'ispe',
      [0, 0, 0, 0],
      width,
      height,
      new Array(32).fill(0) as number[],
    );

  it('is known by its brand, and its size before it is decoded', () => {
    const picture = avif([0, 0, 2, 0], [0, 0, 1, 0]);
    expect(isAvif(picture)).toBeTrue();
    expect(foreignPicture(picture)).toBeNull();
    expect(heifSize(picture)).toEqual({ width: 512, height: 256 });
    expect(sniffPicture(picture)).toEqual({
      type: 'avif',
      width: 512,
      height: 256,
      orientation: 1,
    });
  });

  it('that would fill the memory is refused unread', () => {
    expect(() => sniffPicture(avif([0, 1, 0, 0], [0, 1, 0, 0]))).toThrowError(PictureError);
  });
});

describe('a JPEG', () => {
  const scan = [0xff, 0xda, 0, 2];
  it('is whole where its end comes after its pixels (ITU-T T.81, B.2.1)', () => {
    const start = [0xff, 0xd8, 0xff, 0xe1, 0, 4, 0xff, 0xd9];
    expect(isWholeJpeg(bytes([...start, ...scan, 1, 2, 3, 0xff, 0xd9]))).toBeTrue();
    expect(isWholeJpeg(bytes([...start, ...scan, 1, 0xff, 0xd9, 0, 0]))).toBeTrue();
    // The end of a small picture in its notes is not its own.
    expect(isWholeJpeg(bytes([...start, ...scan, 1, 2, 3]))).toBeFalse();
  });
});
