import {
  EAST_ASIAN_FONTS,
  FONT_NAMES,
  SCRIPT_FONT_NAMES,
  STEP,
  writePathData,
} from '@cuaderno/core';
import type {
  Blend,
  DisplayImage,
  DisplayOutline,
  DisplaySink,
  DisplayText,
  FileHash,
  Matrix,
  PathBuffer,
  TextFont,
} from '@cuaderno/core';

/** Fonts like ours, for where ours aren't. */
const LIKE: Record<TextFont, string> = {
  plain: 'sans-serif',
  title: 'serif',
  dyslexic: 'sans-serif',
};

/** Fonts for other scripts, as CSS names them. */
const SCRIPTS = SCRIPT_FONT_NAMES.map((name) => `'${name}'`).join(', ');

/** Digits after the decimal point of a point: a hundredth is far finer than any print. */
const DIGITS = 2;

/** How much is seen of what would multiply, where there are no styles. */
const SEE_THROUGH = 0.5;

/** Text as it may stand in XML (XML 1.0, 2.2 and 2.4). */
export function escaped(text: string): string {
  return text
    .replace(/[^\t\n\r\P{Cc}]|[\ufffe\uffff]/gu, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');
}

/** Writes a display list as SVG 2. */
export class SvgWriter implements DisplaySink {
  private readonly parts: string[] = [];
  private clips = 0;

  /**
   * @param pictures addresses of pictures, mostly as data; one that is missing is left out
   * @param plain whether it does without styles: what multiplies is then see-through instead
   */
  constructor(
    private readonly pictures: ReadonlyMap<FileHash, string>,
    private readonly plain = false,
  ) {}

  path(path: PathBuffer, colour: string, blend: Blend, width: number | null): void {
    const data = writePathData(path.copy(), DIGITS);
    // A round pen that only touches leaves a dot: SVG draws one for a line that goes nowhere.
    const drawn = path.stepCount === 1 && path.steps[0] === STEP.move ? `${data}h0` : data;
    const look =
      width === null
        ? `fill="${colour}"`
        : `fill="none" stroke="${colour}" stroke-width="${number(width)}" stroke-linecap="round" stroke-linejoin="round"`;
    const mixed =
      blend === 'normal'
        ? ''
        : this.plain
          ? ` opacity="${SEE_THROUGH}"`
          : ' style="mix-blend-mode:multiply"';
    this.parts.push(`<path d="${drawn}" ${look}${mixed}/>`);
  }

  outline({ path, colour, matrix }: DisplayOutline): void {
    this.parts.push(
      `<path d="${writePathData(path, 0)}" fill="${colour}" transform="${map(matrix)}"/>`,
    );
  }

  image({ file, matrix, crop }: DisplayImage): void {
    const href = this.pictures.get(file);
    if (!href) return;
    // A picture of one unit each way, of which a window shows the part that is meant.
    const id = `part${this.clips++}`;
    const { x, y, width, height } = crop;
    const whole = width === 1 && height === 1;
    const window = whole ? '' : `<clipPath id="${id}"><rect width="1" height="1"/></clipPath>`;
    const image =
      `<image href="${escaped(href)}" preserveAspectRatio="none" x="${number(-x / width)}" ` +
      `y="${number(-y / height)}" width="${number(1 / width)}" height="${number(1 / height)}"/>`;
    this.parts.push(
      `<g transform="${map(matrix)}">${window}${whole ? image : `<g clip-path="url(#${id})">${image}</g>`}</g>`,
    );
  }

  text(display: DisplayText): void {
    const { text, font, bold, slant, size, colour, width, rtl, eastAsian = [], matrix } = display;
    const beside = eastAsian.map((name) => `'${EAST_ASIAN_FONTS[name]}', `).join('');
    const style =
      (bold ? ' font-weight="700"' : '') +
      (slant ? ' font-style="italic"' : '') +
      // The left end is where it begins, whichever way it runs.
      (rtl ? ' direction="rtl" text-anchor="end"' : '');
    this.parts.push(
      `<text transform="${map(matrix)}" font-family="'${FONT_NAMES[font]}', ${SCRIPTS}, ${beside}${LIKE[font]}" font-size="${number(size)}" ` +
        `fill="${colour}" textLength="${number(width)}" lengthAdjust="spacingAndGlyphs" ` +
        `xml:space="preserve"${style}>${escaped(text)}</text>`,
    );
  }

  done(): string {
    return this.parts.join('\n');
  }
}

export function number(n: number): string {
  return String(Number(n.toFixed(4)) + 0);
}

function map(matrix: Matrix): string {
  return `matrix(${matrix.map(number).join(' ')})`;
}
