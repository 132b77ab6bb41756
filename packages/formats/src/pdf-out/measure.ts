import type { Font } from 'fontkit';
import { eastAsianWidth } from '@cuaderno/core';
import type { Measure, TextFont } from '@cuaderno/core';
import type { FontLoader } from '../pdf-content/text-fonts.js';

/** How wide words are in a font of ours, in any size in points. */
export async function measureWith(
  load: FontLoader,
  font: TextFont,
): Promise<(size: number) => Measure> {
  const fontkit = await import('fontkit');
  const open = (bytes: Uint8Array): Font => fontkit.create(bytes as never) as Font;
  const chain = async (bold: boolean, slant: boolean): Promise<Chain> =>
    new Chain(await load({ font, bold, slant }, new Set()), open);
  const [plain, bold, slant, both] = await Promise.all([
    chain(false, false),
    chain(true, false),
    chain(false, true),
    chain(true, true),
  ]);
  return (size) => (text, look) => {
    const used = look.bold ? (look.slant ? both : bold) : look.slant ? slant : plain;
    return used.width(text) * size;
  };
}

interface Opened {
  readonly kit: Font;
  readonly letters: ReadonlySet<number>;
}

/** Fonts of a style, the first that has a letter is taken for it. Each is opened when it is needed. */
class Chain {
  private readonly opened: Opened[] = [];

  constructor(
    private readonly files: readonly Uint8Array[],
    private readonly open: (bytes: Uint8Array) => Font,
  ) {}

  /** At size 1. */
  width(text: string): number {
    let width = 0;
    let run = '';
    let used: Opened | undefined;
    const end = (): void => {
      if (used && run !== '') width += used.kit.layout(run).advanceWidth / used.kit.unitsPerEm;
      run = '';
    };
    for (const letter of text) {
      // All are as wide as the next, so nothing need be opened for it.
      const known = eastAsianWidth(letter);
      if (known !== null) {
        end();
        width += known;
        continue;
      }
      const point = letter.codePointAt(0)!;
      const has = used?.letters.has(point) ? used : this.fontOf(point);
      if (has !== used) end();
      used = has;
      run += letter;
    }
    end();
    return width;
  }

  private fontOf(point: number): Opened | undefined {
    for (let i = 0; i < this.files.length; i++)
      if (this.at(i).letters.has(point)) return this.at(i);
    return this.files.length > 0 ? this.at(0) : undefined;
  }

  private at(i: number): Opened {
    const known = this.opened[i];
    if (known) return known;
    const kit = this.open(this.files[i]!);
    return (this.opened[i] = { kit, letters: new Set(kit.characterSet) });
  }
}
