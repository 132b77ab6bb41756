/** Thrown when bytes are not ink, or not ink that anyone could have drawn. */
export class InkCodingError extends Error {
  override readonly name = 'InkCodingError';
}

/** Signed numbers to unsigned ones, small ones staying small: 0, -1, 1, -2 … become 0, 1, 2, 3 … */
export function zigzag(n: number): number {
  return n < 0 ? -2 * n - 1 : 2 * n;
}

export function unzigzag(n: number): number {
  // Whole numbers of 32 bits, as nearly all are, stay that: they are quicker than others.
  if (n < 0x80000000) return (n >>> 1) ^ -(n & 1);
  return n % 2 === 0 ? n / 2 : -(n + 1) / 2;
}

/** Writes bytes and variable-length integers (LEB128, as in DWARF 5, 7.6) into a growing buffer. */
export class ByteWriter {
  private bytes: Uint8Array;
  private length = 0;

  /** @param room bytes that it holds before it grows */
  constructor(room = 256) {
    this.bytes = new Uint8Array(room);
  }

  byte(value: number): void {
    if (this.length === this.bytes.length) {
      const wider = new Uint8Array(this.bytes.length * 2);
      wider.set(this.bytes);
      this.bytes = wider;
    }
    this.bytes[this.length++] = value;
  }

  varint(value: number): void {
    let rest = value;
    while (rest >= 0x80) {
      this.byte((rest % 0x80) + 0x80);
      rest = Math.floor(rest / 0x80);
    }
    this.byte(rest);
  }

  done(): Uint8Array {
    return this.bytes.slice(0, this.length);
  }
}

/** Reads what `ByteWriter` wrote. Throws `InkCodingError` past the end or on an endless number. */
export class ByteReader {
  private at = 0;
  constructor(private readonly bytes: Uint8Array) {}

  get atEnd(): boolean {
    return this.at === this.bytes.length;
  }

  byte(): number {
    const value = this.bytes[this.at++];
    if (value === undefined) throw new InkCodingError('The ink ends in the middle.');
    return value;
  }

  varint(): number {
    // Nearly all numbers of ink are a single byte.
    const first = this.bytes[this.at];
    if (first !== undefined && first < 0x80) {
      this.at++;
      return first;
    }
    let value = 0;
    let scale = 1;
    for (let i = 0; i < 5; i++) {
      const byte = this.byte();
      value += (byte & 0x7f) * scale;
      if (byte < 0x80) return value;
      scale *= 0x80;
    }
    throw new InkCodingError('A number in the ink is too long.');
  }
}
