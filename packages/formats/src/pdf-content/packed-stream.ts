import { PDFRawStream } from '@cantoo/pdf-lib';
import type { PDFDict } from '@cantoo/pdf-lib';

const ascii = (text: string): Uint8Array => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
const BEGIN = ascii('\nstream\n');
const END = ascii('\nendstream');

/** A stream that is written as it is in one go: the library writes streams byte by byte, and ink is millions of them. */
export function packedStream(dict: PDFDict, bytes: Uint8Array): PDFRawStream {
  const stream = PDFRawStream.of(dict, bytes);
  stream.copyBytesInto = (buffer, offset) => {
    stream.updateDict();
    let at = offset + dict.copyBytesInto(buffer, offset);
    for (const part of [BEGIN, stream.getContents(), END]) {
      buffer.set(part, at);
      at += part.length;
    }
    return at - offset;
  };
  return stream;
}
