import { PDFArray, PDFDict, PDFHexString, PDFName, PDFNumber, PDFString } from '@cantoo/pdf-lib';
import type { PDFObject } from '@cantoo/pdf-lib';

/* Readers of entries of a dictionary. What is of another kind than it should be counts as not there. */

/** Bytes of a string. */
export function bytesOf(dict: PDFDict, key: string): Uint8Array | null {
  const value = dict.lookup(PDFName.of(key));
  return value instanceof PDFHexString || value instanceof PDFString ? value.asBytes() : null;
}

export function numberOf(dict: PDFDict, key: string): number | null {
  const value = dict.lookup(PDFName.of(key));
  return value instanceof PDFNumber && Number.isFinite(value.asNumber()) ? value.asNumber() : null;
}

export function nameOf(dict: PDFDict, key: string): string | null {
  const value = dict.lookup(PDFName.of(key));
  return value instanceof PDFName ? value.decodeText() : null;
}

/** Empty where there is none. */
export function textOf(dict: PDFDict, key: string): string {
  return wordsOf(dict.lookup(PDFName.of(key))) ?? '';
}

/** Words of a string. */
export function wordsOf(value: PDFObject | undefined): string | null {
  return value instanceof PDFHexString || value instanceof PDFString ? value.decodeText() : null;
}

export function dictOf(dict: PDFDict, key: string): PDFDict | null {
  const value = dict.lookup(PDFName.of(key));
  return value instanceof PDFDict ? value : null;
}

export function arrayOf(dict: PDFDict, key: string): PDFArray | null {
  const value = dict.lookup(PDFName.of(key));
  return value instanceof PDFArray ? value : null;
}

/** So many numbers; `null` where it isn't exactly that. */
export function numbersIn(value: PDFObject | undefined, count: number): number[] | null {
  if (!(value instanceof PDFArray) || value.size() !== count) return null;
  const numbers: number[] = [];
  for (let i = 0; i < count; i++) {
    const n = value.lookup(i);
    if (!(n instanceof PDFNumber) || !Number.isFinite(n.asNumber())) return null;
    numbers.push(n.asNumber());
  }
  return numbers;
}

/** Dictionaries in an array, in order; what else is in it is passed over. */
export function dictsIn(value: PDFObject | null | undefined): PDFDict[] {
  if (!(value instanceof PDFArray)) return [];
  const dicts: PDFDict[] = [];
  for (let i = 0; i < value.size(); i++) {
    const entry = value.lookup(i);
    if (entry instanceof PDFDict) dicts.push(entry);
  }
  return dicts;
}

/** Takes out of an array what is named. */
export function removeFrom(array: PDFArray, gone: ReadonlySet<PDFObject>): void {
  for (let i = array.size() - 1; i >= 0; i--) {
    const entry = array.lookup(i);
    if (entry && gone.has(entry)) array.remove(i);
  }
}
