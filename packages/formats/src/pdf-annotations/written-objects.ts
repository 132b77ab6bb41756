import { PDFDict, PDFObject, PDFStream } from '@cantoo/pdf-lib';
import type { PDFContext } from '@cantoo/pdf-lib';

/*
 * Objects whose bytes are there already. A lesson of an hour has thousands of annotations; as dictionaries of
 * objects they would cost several times what their ink does.
 */

/** A dictionary as it is written. */
export class WrittenDict extends PDFObject {
  constructor(private readonly code: string) {
    super();
  }

  override clone(): WrittenDict {
    return this;
  }

  override toString(): string {
    return this.code;
  }

  override sizeInBytes(): number {
    return this.code.length;
  }

  override copyBytesInto(buffer: Uint8Array, offset: number): number {
    return copyAscii(this.code, buffer, offset);
  }
}

const END = '\nendstream';

/** A stream, with the entries of its dictionary as they are written, but for its length. */
export class WrittenStream extends PDFStream {
  private readonly head: string;

  constructor(
    entries: string,
    private readonly bytes: Uint8Array,
    context: PDFContext,
  ) {
    // A reader of it finds an empty dictionary; it is only ever written.
    super(PDFDict.withContext(context));
    this.head = `<<${entries}/Length ${bytes.length}>>\nstream\n`;
  }

  override clone(): WrittenStream {
    return this;
  }

  override getContents(): Uint8Array {
    return this.bytes;
  }

  override getContentsSize(): number {
    return this.bytes.length;
  }

  override sizeInBytes(): number {
    return this.head.length + this.bytes.length + END.length;
  }

  override copyBytesInto(buffer: Uint8Array, offset: number): number {
    const { head, bytes } = this;
    copyAscii(head, buffer, offset);
    buffer.set(bytes, offset + head.length);
    copyAscii(END, buffer, offset + head.length + bytes.length);
    return this.sizeInBytes();
  }
}

function copyAscii(code: string, buffer: Uint8Array, offset: number): number {
  for (let i = 0; i < code.length; i++) buffer[offset + i] = code.charCodeAt(i);
  return code.length;
}
