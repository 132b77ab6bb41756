import { KINDS } from './annotation.js';

const MARK = new TextEncoder().encode('/ObjStm');
const STREAM = new TextEncoder().encode('stream');
/** Most bytes of objects that are looked through. */
const MOST = 200_000_000;

/**
 * Whether a PDF may have annotations that can be taken onto the page. Only a look at its bytes, and at objects
 * that lie compressed in streams (ISO 32000-1, 7.5.7): it costs next to nothing, and most files have none.
 */
export function mayHaveAnnotations(
  bytes: Uint8Array,
  inflate: (bytes: Uint8Array) => Uint8Array,
): boolean {
  if (names(bytes)) return true;
  let left = MOST;
  for (let at = find(bytes, MARK, 0); at >= 0 && left > 0; at = find(bytes, MARK, at + 1)) {
    const stream = find(bytes, STREAM, at);
    if (stream < 0) break;
    let from = stream + STREAM.length;
    if (bytes[from] === 13) from++;
    if (bytes[from] === 10) from++;
    try {
      const objects = inflate(bytes.subarray(from));
      left -= objects.length;
      if (names(objects)) return true;
    } catch {
      // Compressed in another way, or encrypted: whoever opens the file finds out.
      return true;
    }
  }
  return false;
}

const KIND = new RegExp(`/Subtype\\s*/(?:${KINDS.join('|')})\\b`);
const SUBTYPE = new TextEncoder().encode('/Subtype');
/** Bytes after `/Subtype` that can hold a kind. */
const REACH = 40;

function names(bytes: Uint8Array): boolean {
  for (let at = find(bytes, SUBTYPE, 0); at >= 0; at = find(bytes, SUBTYPE, at + 1)) {
    const piece = String.fromCharCode(...bytes.subarray(at, at + REACH));
    if (KIND.test(piece)) return true;
  }
  return false;
}

/** Where `what` is next, from `from` on; -1 where it isn't. */
function find(bytes: Uint8Array, what: Uint8Array, from: number): number {
  const [first] = what;
  for (let at = bytes.indexOf(first!, from); at >= 0; at = bytes.indexOf(first!, at + 1)) {
    let i = 1;
    while (i < what.length && bytes[at + i] === what[i]) i++;
    if (i === what.length) return at;
  }
  return -1;
}
