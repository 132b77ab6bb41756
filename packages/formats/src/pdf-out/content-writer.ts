import type { DisplayList, Matrix, PathSink } from '@cuaderno/core';
import { trace } from '@cuaderno/core';

/** Whole numbers in a point: coordinates are written without a decimal point, to 0.05 pt. */
const SCALE = 20;

/** Name of the graphics state that multiplies; set in a page's resources when it is used. */
export const MULTIPLY = 'CuaMultiply';

/**
 * Writes a display list as content stream operators (ISO 32000-1, 8.5.2 and 8.5.3). Sixty pages of
 * ink are millions of numbers, so they go straight into bytes, as whole numbers.
 */
export class ContentWriter implements PathSink {
  private bytes = new Uint8Array(1 << 16);
  private length = 0;
  private x = 0;
  private y = 0;
  /** Where the present path begins, in whole numbers: its coordinates are counted from there. */
  private fromX = 0;
  private fromY = 0;
  /** Whether `MULTIPLY` occurs. */
  multiplies = false;

  /** @param map from points on our page to the PDF's user space */
  constructor(map: Matrix) {
    this.text('q ');
    const [a, b, c, d, e, f] = map;
    for (const n of [a / SCALE, b / SCALE, c / SCALE, d / SCALE, e, f]) this.text(`${decimal(n)} `);
    this.text('cm 1 J 1 j\n');
  }

  /** Draws what belongs together, such as all of one stroke: its coordinates count from its start. */
  draw(list: DisplayList): void {
    const [first] = list;
    if (!first) return;
    this.fromX = Math.round((first.path.numbers[0] ?? 0) * SCALE);
    this.fromY = Math.round((first.path.numbers[1] ?? 0) * SCALE);
    this.text(`q 1 0 0 1 ${this.fromX} ${this.fromY} cm `);
    let look = '';
    for (const { path, colour, blend, paint } of list) {
      const next = `${blend === 'multiply' ? `/${MULTIPLY} gs ` : ''}${rgb(colour)} ${paint === 'fill' ? 'rg' : 'RG'} `;
      if (next !== look) this.text((look = next));
      this.multiplies ||= blend === 'multiply';
      if (paint !== 'fill') this.text(`${decimal(paint.width * SCALE)} w `);
      trace(path, this);
      this.text(paint === 'fill' ? 'f\n' : 'S\n');
    }
    this.text('Q\n');
  }

  done(): Uint8Array {
    this.text('Q\n');
    return this.bytes.slice(0, this.length);
  }

  moveTo(x: number, y: number): void {
    this.pair(x, y);
    this.operator(0x6d);
  }

  lineTo(x: number, y: number): void {
    this.pair(x, y);
    this.operator(0x6c);
  }

  /** PDF has cubic curves only: the same curve, with its control points two thirds of the way. */
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void {
    const { x: x0, y: y0 } = this;
    this.pair(x0 + ((cx - x0) * 2) / 3, y0 + ((cy - y0) * 2) / 3);
    this.pair(x + ((cx - x) * 2) / 3, y + ((cy - y) * 2) / 3);
    this.pair(x, y);
    this.operator(0x63);
  }

  closePath(): void {
    this.operator(0x68);
  }

  private pair(x: number, y: number): void {
    this.x = x;
    this.y = y;
    this.room(40);
    this.whole(Math.round(x * SCALE) - this.fromX);
    this.whole(Math.round(y * SCALE) - this.fromY);
  }

  private whole(value: number): void {
    let rest = value;
    if (rest < 0) {
      this.bytes[this.length++] = 0x2d;
      rest = -rest;
    }
    const digits = rest < 10 ? 1 : rest < 100 ? 2 : rest < 1000 ? 3 : String(rest).length;
    const end = this.length + digits;
    for (let i = end - 1; i >= this.length; i--) {
      const next = (rest / 10) | 0;
      this.bytes[i] = 0x30 + rest - next * 10;
      rest = next;
    }
    this.bytes[end] = 0x20;
    this.length = end + 1;
  }

  /** An operator of one letter. */
  private operator(letter: number): void {
    this.room(2);
    this.bytes[this.length++] = letter;
    this.bytes[this.length++] = 0x20;
  }

  private text(ascii: string): void {
    this.room(ascii.length);
    for (let i = 0; i < ascii.length; i++) this.bytes[this.length++] = ascii.charCodeAt(i);
  }

  private room(count: number): void {
    if (this.length + count <= this.bytes.length) return;
    const wider = new Uint8Array(this.bytes.length * 2);
    wider.set(this.bytes);
    this.bytes = wider;
  }
}

/** A PDF number: never in exponential form (ISO 32000-1, 7.3.3). */
function decimal(n: number): string {
  return Number.isInteger(n) ? String(n) : n.toFixed(6).replace(/\.?0+$/, '');
}

const rgbs = new Map<string, string>();

function rgb(colour: string): string {
  let known = rgbs.get(colour);
  if (known === undefined) rgbs.set(colour, (known = parts(colour)));
  return known;
}

function parts(colour: string): string {
  return [1, 3, 5].map((i) => decimal(parseInt(colour.slice(i, i + 2), 16) / 255)).join(' ');
}
