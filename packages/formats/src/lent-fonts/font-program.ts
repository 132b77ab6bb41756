import type { Font as Kit } from 'fontkit';
import type { Glyph, Path as OutlinePath } from 'opentype.js';
import type { ShownInFont } from './shown-codes.js';

/** Units to an em, in which widths of a PDF are, too. */
const EM = 1000;

/** A font that has what is shown, and no more. */
export interface FontProgram {
  /** In Compact Font Format; the glyph of the first code is number 1, that of the next one 2. */
  readonly cff: Uint8Array;
  /** How many letters the fonts it was made of have; for others a box stands. */
  readonly drawn: number;
}

/**
 * A font of the outlines that other fonts have for what is shown: theirs are spread over many files, and a PDF's font
 * has one.
 * @param kits the first that has a letter is taken for it
 */
export async function fontProgram(
  name: string,
  { codes, vertical }: ShownInFont,
  kits: readonly Kit[],
): Promise<FontProgram> {
  // It is made for loaders that know no names of what it exports.
  const { Font, Glyph, Path } = (await import('opentype.js')).default;
  let drawn = 0;
  const glyphs: Glyph[] = [
    new Glyph({ name: '.notdef', advanceWidth: EM, path: new Path() } as never),
  ];
  codes.forEach(({ words, width }, i) => {
    const [letter = ' '] = words;
    const path = new Path();
    const point = letter.codePointAt(0)!;
    const kit = kits.find((one) => one.hasGlyphForCodePoint(point));
    if (letter.trim() !== '') {
      if (kit) drawn++;
      if (kit) trace(kit, letter, { width, vertical }, path);
      else box(path, width);
    }
    glyphs.push(new Glyph({ name: `g${i + 1}`, advanceWidth: width, path } as never));
  });
  const font = new Font({
    familyName: name,
    styleName: 'Regular',
    unitsPerEm: EM,
    ascender: 880,
    descender: -120,
    glyphs,
  });
  return { cff: tableOf(new Uint8Array(font.toArrayBuffer()), 'CFF '), drawn };
}

/** A letter as a font has it; narrower where there is less room for it than it needs. */
function trace(
  kit: Kit,
  letter: string,
  { width, vertical }: { width: number; vertical: boolean },
  path: OutlinePath,
): void {
  // Punctuation stands elsewhere where lines run downwards.
  const [glyph] = kit.layout(letter, vertical ? ['vert'] : []).glyphs;
  if (!glyph) return;
  const scale = EM / kit.unitsPerEm;
  const wide = glyph.advanceWidth * scale;
  const narrow = width > 0 && wide > width ? width / wide : 1;
  const x = (value: number): number => Math.round(value * scale * narrow);
  const y = (value: number): number => Math.round(value * scale);
  for (const { command, args } of glyph.path.commands) {
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = args;
    if (command === 'moveTo') path.moveTo(x(a), y(b));
    else if (command === 'lineTo') path.lineTo(x(a), y(b));
    else if (command === 'quadraticCurveTo') path.quadraticCurveTo(x(a), y(b), x(c), y(d));
    else if (command === 'bezierCurveTo') path.curveTo(x(a), y(b), x(c), y(d), x(e), y(f));
    else path.close();
  }
}

/** Where a letter is that no font has: that one is there is seen. */
function box(path: OutlinePath, width: number): void {
  const right = Math.max(width, 200) - 80;
  const rectangle = (corners: readonly (readonly [number, number])[]): void => {
    corners.forEach(([x, y], i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
    path.close();
  };
  rectangle([
    [80, 0],
    [80, 700],
    [right, 700],
    [right, 0],
  ]);
  // Turned the other way, it is a hole.
  rectangle([
    [120, 40],
    [right - 40, 40],
    [right - 40, 660],
    [120, 660],
  ]);
}

/** A table of an OpenType file (ISO/IEC 14496-22, "Table directory"). */
function tableOf(file: Uint8Array, tag: string): Uint8Array {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  for (let at = 12; at < 12 + 16 * view.getUint16(4); at += 16)
    if (String.fromCharCode(...file.subarray(at, at + 4)) === tag) {
      const from = view.getUint32(at + 8);
      return file.subarray(from, from + view.getUint32(at + 12));
    }
  throw new Error(`There is no table ${tag} in this font.`);
}
