import type { PDFFont } from '@cantoo/pdf-lib';
import { STEP } from '@cuaderno/core';
import type {
  Blend,
  DisplayImage,
  DisplayOutline,
  DisplaySink,
  DisplayText,
  FileHash,
  Matrix,
  PathBuffer,
} from '@cuaderno/core';
import { decimal } from './decimal.js';
import type { TextFonts } from './text-fonts.js';

/** Whole numbers in a point: coordinates are written without a decimal point, to 0.05 pt. */
const SCALE = 20;

/** Name of the graphics state that multiplies; set in a page's resources when it is used. */
export const MULTIPLY = 'CuaMultiply';

/** The digits of each number below 10,000, the first in the lowest byte: far most numbers of ink. */
const NUMBERS = Uint32Array.from({ length: 10_000 }, (_, n) => {
  let letters = 0;
  for (let rest = n; rest > 0 || letters === 0; rest = (rest / 10) | 0)
    letters = (letters << 8) | (0x30 + (rest % 10));
  return letters;
});
const LENGTHS = Uint8Array.from(NUMBERS, (_, n) => (n < 10 ? 1 : n < 100 ? 2 : n < 1000 ? 3 : 4));

/**
 * Writes a display list as content stream operators (ISO 32000-1, 8.5.2 and 8.5.3). Sixty pages of
 * ink are millions of numbers, so they go straight into bytes, as whole numbers.
 */
export class ContentWriter implements DisplaySink {
  private bytes = new Uint8Array(1 << 18);
  private length = 0;
  /** What has been said in this group: its origin, in whole numbers, the look and the pen's width. */
  private origin: { x: number; y: number } | null = null;
  private look = '';
  private width = 0;
  /** Whether `MULTIPLY` occurs. */
  multiplies = false;
  /** Fonts that occur in this stream, by the names by which it calls them. */
  fonts = new Map<string, PDFFont>();
  /** Pictures that occur in this stream, under the names by which it calls them. */
  pictures = new Map<FileHash, string>();

  /** @param words the fonts of what is written; where there are none, words are left out */
  constructor(private readonly words: TextFonts | null = null) {}

  /**
   * Begins a content stream; the writer may be used for one after another.
   * @param map from points on our page to the PDF's user space
   */
  start(map: Matrix): void {
    this.length = 0;
    this.multiplies = false;
    this.pictures = new Map();
    this.fonts = new Map();
    this.ascii('q ');
    const [a, b, c, d, e, f] = map;
    for (const n of [a / SCALE, b / SCALE, c / SCALE, d / SCALE, e, f])
      this.ascii(`${decimal(n)} `);
    this.ascii('cm 1 J 1 j\n');
  }

  /** Draws what belongs together, such as all of one stroke: its coordinates count from its start. */
  group(draw: (sink: DisplaySink) => void): void {
    this.origin = null;
    this.look = '';
    this.width = 0;
    draw(this);
    if (this.origin) this.ascii('Q\n');
  }

  path(path: PathBuffer, colour: string, blend: Blend, width: number | null): void {
    const { x, y } = (this.origin ??= this.beginGroup(path));
    const look = lookOf(colour, blend, width === null);
    if (look !== this.look) this.ascii((this.look = look));
    this.multiplies ||= blend === 'multiply';
    if (width !== null && width !== this.width) this.ascii(penOf((this.width = width)));
    // At most three numbers of 12 bytes twice, and an operator, a step.
    this.room(path.stepCount * 80 + 2);
    this.length = trace(path, x, y, this.bytes, this.length);
    this.ascii(width === null ? 'f\n' : 'S\n');
  }

  /** A picture: an image of one unit each way, its corner at the bottom left (ISO 32000-1, 8.9.5). */
  image({ file, matrix, crop }: DisplayImage): void {
    const name = this.pictures.get(file) ?? `CuaPicture${this.pictures.size}`;
    this.pictures.set(file, name);
    const [a, b, c, d, e, f] = matrix;
    this.ascii('q ');
    // A group counts from its start, whole pages from their corner.
    const { x, y } = this.origin ?? { x: 0, y: 0 };
    for (const n of [a, b, -c, -d]) this.ascii(`${decimal(n * SCALE)} `);
    this.ascii(`${decimal((e + c) * SCALE - x)} ${decimal((f + d) * SCALE - y)} cm `);
    const { width, height } = crop;
    if (width < 1 || height < 1) {
      this.ascii('0 0 1 1 re W n ');
      const part = [1 / width, 0, 0, 1 / height, -crop.x / width, (height - 1 + crop.y) / height];
      for (const n of part) this.ascii(`${decimal(n)} `);
      this.ascii('cm ');
    }
    this.ascii(`/${name} Do Q\n`);
  }

  /** Outlines of signs: in units of their own, so that they are as fine as they were made. */
  outline({ path: { steps, numbers }, colour, matrix }: DisplayOutline): void {
    const [a, b, c, d, e, f] = matrix;
    const { x, y } = this.origin ?? { x: 0, y: 0 };
    this.ascii(`q ${lookOf(colour, 'normal', true)}`);
    for (const n of [a, b, c, d]) this.ascii(`${decimal(n * SCALE)} `);
    this.ascii(`${decimal(e * SCALE - x)} ${decimal(f * SCALE - y)} cm\n`);
    let n = 0;
    for (const step of steps) {
      if (step === STEP.close) {
        this.ascii('h ');
        continue;
      }
      let from = numbers.slice(n, (n += step === STEP.quad ? 4 : step === STEP.cubic ? 6 : 2));
      if (step === STEP.quad) from = cubic(numbers[n - 6]!, numbers[n - 5]!, from);
      for (const number of from) this.ascii(`${decimal(number)} `);
      this.ascii(step === STEP.move ? 'm ' : step === STEP.line ? 'l ' : 'c ');
    }
    this.ascii('f Q\n');
  }

  /** Words: text that can be chosen and found (ISO 32000-1, 9.4), as wide as they are on screen. */
  text(words: DisplayText): void {
    const pieces = this.words?.pieces(words) ?? [];
    const total = pieces.reduce((sum, { width }) => sum + width, 0) * words.size;
    if (total <= 0) return;
    const [a, b, c, d, e, f] = words.matrix;
    const { x, y } = this.origin ?? { x: 0, y: 0 };
    this.ascii(`q ${lookOf(words.colour, 'normal', true)}BT `);
    this.ascii(`${decimal((words.width / total) * 100)} Tz `);
    for (const n of [a, b, -c, -d]) this.ascii(`${decimal(n * SCALE)} `);
    this.ascii(`${decimal(e * SCALE - x)} ${decimal(f * SCALE - y)} Tm `);
    for (const { name, font, code } of pieces) {
      this.fonts.set(name, font);
      this.ascii(`/${name} ${decimal(words.size)} Tf ${code} `);
    }
    this.ascii('ET Q\n');
  }

  /** The content stream that `start` began; to be read before the next one begins. */
  done(): Uint8Array {
    this.ascii('Q\n');
    return this.bytes.subarray(0, this.length);
  }

  private beginGroup({ numbers }: PathBuffer): { x: number; y: number } {
    const x = whole(numbers[0]!);
    const y = whole(numbers[1]!);
    this.ascii(`q 1 0 0 1 ${x} ${y} cm `);
    return { x, y };
  }

  private ascii(ascii: string): void {
    this.room(ascii.length);
    for (let i = 0; i < ascii.length; i++) this.bytes[this.length++] = ascii.charCodeAt(i);
  }

  private room(count: number): void {
    if (this.length + count <= this.bytes.length) return;
    const wider = new Uint8Array(this.bytes.length * 2 + count);
    wider.set(this.bytes);
    this.bytes = wider;
  }
}

/** The cubic curve that is the same as a quadratic one from `x`, `y`. */
function cubic(x: number, y: number, quad: readonly number[]): number[] {
  const [cx, cy, toX, toY] = quad as [number, number, number, number];
  return [
    x + (cx - x) * TWO_THIRDS,
    y + (cy - y) * TWO_THIRDS,
    toX + (cx - toX) * TWO_THIRDS,
    toY + (cy - toY) * TWO_THIRDS,
    toX,
    toY,
  ];
}

const TWO_THIRDS = 2 / 3;
const OPERATOR = { m: 0x6d, l: 0x6c, c: 0x63, h: 0x68 } as const;

/** Writes the steps of a path; returns where the next thing goes. PDF has cubic curves only: the same
 * curve, with its control points two thirds of the way.
 */
function trace(
  path: PathBuffer,
  fromX: number,
  fromY: number,
  bytes: Uint8Array,
  at: number,
): number {
  const { steps, stepCount, numbers } = path;
  let x0 = 0;
  let y0 = 0;
  let n = 0;
  for (let i = 0; i < stepCount; i++) {
    const step = steps[i]!;
    let operator: number = OPERATOR.h;
    if (step !== STEP.close) {
      if (step === STEP.quad) {
        const cx = numbers[n++]!;
        const cy = numbers[n++]!;
        const x = numbers[n]!;
        const y = numbers[n + 1]!;
        at = put(bytes, at, whole(x0 + (cx - x0) * TWO_THIRDS) - fromX);
        at = put(bytes, at, whole(y0 + (cy - y0) * TWO_THIRDS) - fromY);
        at = put(bytes, at, whole(x + (cx - x) * TWO_THIRDS) - fromX);
        at = put(bytes, at, whole(y + (cy - y) * TWO_THIRDS) - fromY);
        operator = OPERATOR.c;
      } else if (step === STEP.cubic) {
        for (let control = 0; control < 2; control++) {
          at = put(bytes, at, whole(numbers[n++]!) - fromX);
          at = put(bytes, at, whole(numbers[n++]!) - fromY);
        }
        operator = OPERATOR.c;
      } else {
        operator = step === STEP.line ? OPERATOR.l : OPERATOR.m;
      }
      x0 = numbers[n++]!;
      y0 = numbers[n++]!;
      at = put(bytes, at, whole(x0) - fromX);
      at = put(bytes, at, whole(y0) - fromY);
    }
    bytes[at++] = operator;
    bytes[at++] = 0x20;
  }
  return at;
}

/** A coordinate in whole numbers, of 32 bits: no page is that large. */
function whole(points: number): number {
  return Math.round(points * SCALE) | 0;
}

/** Writes a whole number and a space, at most 12 bytes; returns where the next one goes. */
function put(bytes: Uint8Array, at: number, value: number): number {
  // Signs and lengths come as they like, and a processor guesses them badly: so hardly a branch.
  const negative = value >>> 31;
  const rest = negative ? -value : value;
  bytes[at] = 0x2d;
  at += negative;
  if (rest < NUMBERS.length) {
    // Four bytes always; the space is written over those that are too many.
    const letters = NUMBERS[rest]!;
    bytes[at] = letters;
    bytes[at + 1] = letters >>> 8;
    bytes[at + 2] = letters >>> 16;
    bytes[at + 3] = letters >>> 24;
    at += LENGTHS[rest]!;
  } else {
    for (const letter of String(rest)) bytes[at++] = letter.charCodeAt(0);
  }
  bytes[at] = 0x20;
  return at + 1;
}

const looks = new Map<string, string>();

/** Operators for a look. There are few, and each is asked for thousands of times. */
function lookOf(colour: string, blend: Blend, filled: boolean): string {
  // A colour is mostly asked for with the same blend again, and so is a map key by itself.
  const key = blend === 'normal' && !filled ? colour : `${colour} ${blend} ${filled}`;
  let known = looks.get(key);
  if (known === undefined) {
    const parts = [1, 3, 5].map((i) => decimal(parseInt(colour.slice(i, i + 2), 16) / 255));
    known = `${blend === 'multiply' ? `/${MULTIPLY} gs ` : ''}${parts.join(' ')} ${filled ? 'rg' : 'RG'} `;
    looks.set(key, known);
  }
  return known;
}

const pens = new Map<number, string>();

function penOf(width: number): string {
  let known = pens.get(width);
  if (known === undefined) pens.set(width, (known = `${decimal(width * SCALE)} w `));
  return known;
}
