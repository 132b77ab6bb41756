import CFB from 'cfb';
import { DeckError } from './deck.js';

/*
 * Compound files (MS-CFB), as older decks are: a deck is a tree of records in one of its streams (MS-PPT, 2.3). Names of
 * places in them are overwritten where they stand, so that nothing has to be moved.
 */

/** Of a record's head (MS-PPT, 2.3.1): version and instance, type, length. */
const HEAD = 8;
/** Records that hold what is written on slides, which stays whatever it says: TextCharsAtom, TextBytesAtom (MS-PPT, 2.9). */
const WORDS = [0x0fa0, 0x0fa8];
/** Deepest that records lie in one another. */
const DEEPEST = 40;

/** The file without names of places that lie outside of it. Throws `DeckError` for what isn't one. */
export function withoutOutsideOle(file: Uint8Array): Uint8Array {
  try {
    const parsed = CFB.read(file, { type: 'array' });
    for (const entry of parsed.FileIndex) {
      if (entry.type !== 2 || !entry.content?.length) continue;
      const bytes = Uint8Array.from(entry.content as ArrayLike<number>);
      if (entry.name === 'PowerPoint Document') closeRecords(bytes, 0, bytes.length, 0);
      // Pictures are what they are; all else in such a file says of what it is made.
      else if (entry.name !== 'Pictures') blankPlaces(bytes);
      entry.content = bytes as never;
    }
    return new Uint8Array(CFB.write(parsed, { type: 'array' }) as ArrayLike<number>);
  } catch (error) {
    throw error instanceof DeckError ? error : new DeckError('broken');
  }
}

function closeRecords(bytes: Uint8Array, from: number, to: number, depth: number): void {
  if (depth > DEEPEST) throw new DeckError('unsafe');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  for (let at = from; at + HEAD <= to;) {
    const isContainer = (view.getUint16(at, true) & 0x0f) === 0x0f;
    const type = view.getUint16(at + 2, true);
    const end = Math.min(to, at + HEAD + view.getUint32(at + 4, true));
    if (isContainer) closeRecords(bytes, at + HEAD, end, depth + 1);
    else if (!WORDS.includes(type)) blankPlaces(bytes.subarray(at + HEAD, end));
    at = end;
  }
}

/** Shortest run of letters that may name a place. */
const SHORTEST = 3;
const SPACE = 0x20;

/** Overwrites runs of letters, of one byte or two, that name a place. */
function blankPlaces(bytes: Uint8Array): void {
  for (const step of [1, 2] as const)
    for (let offset = 0; offset < step; offset++) {
      let start = -1;
      for (let at = offset; at <= bytes.length; at += step) {
        if (at + step <= bytes.length && isLetter(bytes, at, step)) {
          if (start < 0) start = at;
          continue;
        }
        if (start >= 0 && at - start >= SHORTEST * step && namesPlace(bytes, start, at, step))
          for (let i = start; i < at; i += step) bytes[i] = SPACE;
        start = -1;
      }
    }
}

function isLetter(bytes: Uint8Array, at: number, step: 1 | 2): boolean {
  return bytes[at]! >= SPACE && bytes[at]! < 0x7f && (step === 1 || bytes[at + 1] === 0);
}

/** With a scheme, from the root of a disk or of a server, or above where it is. */
function namesPlace(bytes: Uint8Array, from: number, to: number, step: 1 | 2): boolean {
  let text = '';
  for (let at = from; at < to; at += step) text += String.fromCharCode(bytes[at]!);
  return /[a-z][a-z0-9+.-]+:[/\\]|[a-z]:[\\/]|\\\\|\.\.[\\/]|(^|\s)\/\w/i.test(text);
}
