import type { ReadLimits } from '../features/index.js';

/*
 * What a MessagePack value holds, read from its heads alone (the MessagePack specification, "Formats"): nothing
 * is built for it. Three bytes can ask for an array of 16,383 places; anyone who builds what a stranger's bytes ask for
 * has no memory left after a hundred kilobytes of them.
 */

/** Why a value isn't built. */
export type ReadFault =
  /** It is not MessagePack, or not whole, or has what none of our messages has. */
  | 'not-readable'
  /** It is more than its limits allow. */
  | 'too-large';

/** Most entries of a map: no message of ours names more than half as many fields. */
const MOST_FIELDS = 64;

/** Deepest that is walked, whatever the limits say. */
const DEEPEST = 64;

/** Says why these bytes are not to be built as one value, or `null`. Costs no memory, and time by the values in it. */
export function faultOf(bytes: Uint8Array, limits: ReadLimits): ReadFault | null {
  if (bytes.length > limits.bytes) return 'too-large';
  const cursor = new PackedCursor(bytes);
  /** How many values are to come in each list or map that is open; of a map, keys and values. */
  const left: number[] = [];
  const isMap: boolean[] = [];
  let owed = 1;
  let values = 0;
  let text = 0;
  while (owed > 0) {
    if (++values > limits.values) return 'too-large';
    const top = left.length - 1;
    const isKey = top >= 0 && isMap[top]! && left[top]! % 2 === 0;
    if (!cursor.head()) return 'not-readable';
    // Keys are words: a number as a key is of no message, and `__proto__` is no word of ours.
    if (isKey && (cursor.type !== 'text' || cursor.isText('__proto__'))) return 'not-readable';
    owed--;
    if (top >= 0) left[top]!--;
    if (cursor.type === 'text' && (text += cursor.count) > limits.text) return 'too-large';
    if (cursor.type === 'list' || cursor.type === 'map') {
      const count = cursor.type === 'map' ? cursor.count * 2 : cursor.count;
      if (cursor.type === 'map' && cursor.count > MOST_FIELDS) return 'too-large';
      owed += count;
      // Each value is a byte at least: what isn't there is not asked for in earnest.
      if (owed > bytes.length - cursor.at) return 'not-readable';
      left.push(count);
      isMap.push(cursor.type === 'map');
      if (left.length > Math.min(limits.depth, DEEPEST)) return 'too-large';
    } else if (!cursor.passContent()) return 'not-readable';
    while (left.length > 0 && left[left.length - 1] === 0) {
      left.pop();
      isMap.pop();
    }
  }
  return cursor.at === bytes.length ? null : 'not-readable';
}

/** Goes along a value's bytes, head by head. What it is at is told by its fields, so that nothing is made. */
export class PackedCursor {
  at = 0;
  type: 'text' | 'list' | 'map' | 'other' = 'other';
  /** Values in a list, entries of a map; bytes of a content that follows the head. */
  count = 0;

  /** @param most heads that are read at most: then it is as if the bytes ended */
  constructor(
    private readonly bytes: Uint8Array,
    private most = Infinity,
  ) {}

  /** Reads the next head. Returns `false` past the end, and for what none of our messages has. */
  head(): boolean {
    const { bytes } = this;
    const head = bytes[this.at++];
    if (head === undefined || this.most-- <= 0) return false;
    this.type = 'other';
    this.count = 0;
    if (head < 0x80 || head >= 0xe0) return true;
    if (head < 0x90) return this.is('map', head & 0x0f);
    if (head < 0xa0) return this.is('list', head & 0x0f);
    if (head < 0xc0) return this.is('text', head & 0x1f);
    switch (head) {
      case 0xc0: // nil
      case 0xc2: // false
      case 0xc3: // true
        return true;
      case 0xc4:
      case 0xc5:
      case 0xc6:
        return this.is('other', this.number(1 << (head - 0xc4)));
      case 0xca:
        return this.is('other', 4);
      case 0xcb:
        return this.is('other', 8);
      case 0xcc:
      case 0xcd:
      case 0xce:
      case 0xcf:
        return this.is('other', 1 << (head - 0xcc));
      case 0xd0:
      case 0xd1:
      case 0xd2:
      case 0xd3:
        return this.is('other', 1 << (head - 0xd0));
      case 0xd9:
      case 0xda:
      case 0xdb:
        return this.is('text', this.number(1 << (head - 0xd9)));
      case 0xdc:
      case 0xdd:
        return this.is('list', this.number(2 << (head - 0xdc)));
      case 0xde:
      case 0xdf:
        return this.is('map', this.number(2 << (head - 0xde)));
      default:
        // Extensions, and the byte that is kept free.
        return false;
    }
  }

  /** Reads the next head. Returns whether it is of this type. */
  headOf(type: PackedCursor['type']): boolean {
    return this.head() && this.type === type;
  }

  /** Passes over the content behind a head that isn't a list's or a map's. Returns `false` where it isn't all there. */
  passContent(): boolean {
    this.at += this.count;
    return this.at <= this.bytes.length;
  }

  /** Passes over one whole value. */
  pass(): boolean {
    for (let owed = 1; owed > 0; owed--) {
      if (!this.head()) return false;
      if (this.type === 'list') owed += this.count;
      else if (this.type === 'map') owed += 2 * this.count;
      else if (!this.passContent()) return false;
      if (owed - 1 > this.bytes.length - this.at) return false;
    }
    return true;
  }

  /** Whether the text behind the head is this one, of ASCII letters. */
  isText(word: string): boolean {
    if (this.count !== word.length) return false;
    for (let i = 0; i < word.length; i++)
      if (this.bytes[this.at + i] !== word.charCodeAt(i)) return false;
    return true;
  }

  /** The text behind the head, of ASCII letters, and moves on behind it. `null` where it is longer than `most`. */
  text(most: number): string | null {
    if (this.count > most || this.at + this.count > this.bytes.length) return null;
    let text = '';
    for (let i = 0; i < this.count; i++) text += String.fromCharCode(this.bytes[this.at + i]!);
    this.at += this.count;
    return text;
  }

  private is(type: PackedCursor['type'], count: number): boolean {
    this.type = type;
    this.count = count;
    return count >= 0;
  }

  /** An unsigned number of 1, 2 or 4 bytes; -1 where they aren't all there. */
  private number(size: number): number {
    let value = 0;
    for (let i = 0; i < size; i++) {
      const byte = this.bytes[this.at++];
      if (byte === undefined) return -1;
      value = value * 256 + byte;
    }
    return value;
  }
}
