import { KINDS } from './annotation.js';
import { NOTES } from './comments.js';

const KIND = new RegExp(`/Subtype\\s*/(?:${[...KINDS, ...NOTES, 'FileAttachment'].join('|')})\\b`);
/** Bytes from `/Subtype` on that can hold a kind. */
const REACH = 40;
/** Most bytes of objects that are looked through. */
const MOST = 200_000_000;

/** What is done with bytes faster where there is a faster way. */
export interface ByteTools {
  /** Unpacks what zlib packed (RFC 1950); what follows it is left alone. */
  inflate(bytes: Uint8Array): Uint8Array;
  /** Where a word of ASCII is next; -1 where it isn't. */
  find(bytes: Uint8Array, word: string, from: number): number;
}

/**
 * Whether a PDF may have annotations that can be taken onto the page, or attached files. Only a look at its bytes, and at objects
 * that lie compressed in streams (ISO 32000-1, 7.5.7): it costs next to nothing, and most files have none.
 */
export function mayHaveAnnotations(bytes: Uint8Array, tools: ByteTools): boolean {
  // A stream, and so never in another: that there are attached files is told.
  if (tools.find(bytes, '/EmbeddedFile', 0) >= 0 || names(bytes, tools)) return true;
  let left = MOST;
  for (
    let at = tools.find(bytes, '/ObjStm', 0);
    at >= 0 && left > 0;
    at = tools.find(bytes, '/ObjStm', at + 1)
  ) {
    const stream = tools.find(bytes, 'stream', at);
    if (stream < 0) break;
    let from = stream + 'stream'.length;
    if (bytes[from] === 13) from++;
    if (bytes[from] === 10) from++;
    try {
      const objects = tools.inflate(bytes.subarray(from));
      left -= objects.length;
      if (names(objects, tools)) return true;
    } catch {
      // Compressed in another way, or encrypted: that is found out when the file is opened.
      return true;
    }
  }
  return false;
}

function names(bytes: Uint8Array, tools: ByteTools): boolean {
  for (
    let at = tools.find(bytes, '/Subtype', 0);
    at >= 0;
    at = tools.find(bytes, '/Subtype', at + 1)
  ) {
    const piece = String.fromCharCode(...bytes.subarray(at, at + REACH));
    if (KIND.test(piece)) return true;
  }
  return false;
}
