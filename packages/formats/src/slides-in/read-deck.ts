import { ArchiveError, entries } from '../archive/index.js';
import type { ArchiveLimits } from '../archive/index.js';
import { DeckError } from './deck.js';
import type { Deck } from './deck.js';
import { readOdp } from './odp.js';
import { readPptx } from './pptx.js';

export type DeckKind = 'pptx' | 'odp' | 'ppt';

/** Begins an OLE2 file, as PPT is, and anything of Office that is locked (MS-CFB, 2.2). */
const OLE = [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1];
/** Names of streams in such a file, in UTF-16. */
const LOCKED = utf16('EncryptedPackage');
const POWERPOINT = utf16('PowerPoint Document');
/** Head of the record that says who edited a PPT last, where it is locked (MS-PPT, 2.3.2). */
const LOCKED_PPT = Uint8Array.from([0xdf, 0xc4, 0xd1, 0xf3]);

/**
 * What kind of deck a file is, by its content; `null` for none. Throws `DeckError` for one that is
 * locked, or that goes beyond the limits or out of itself.
 */
export function deckKind(bytes: Uint8Array, limits: ArchiveLimits): DeckKind | null {
  if (OLE.every((byte, i) => bytes[i] === byte)) {
    if (holds(bytes, LOCKED) || holds(bytes, LOCKED_PPT)) throw new DeckError('locked');
    return holds(bytes, POWERPOINT) ? 'ppt' : null;
  }
  const names = new Set<string>();
  try {
    entries(bytes, limits, (path) => {
      names.add(path);
      return false;
    });
  } catch (error) {
    if (!(error instanceof ArchiveError) || error.fault === 'broken') return null;
    throw new DeckError(error.fault);
  }
  if (names.has('ppt/presentation.xml')) return 'pptx';
  return names.has('content.xml') && names.has('META-INF/manifest.xml') ? 'odp' : null;
}

/** Reads what converting a deck loses. Throws `DeckError`. */
export function readDeck(bytes: Uint8Array, kind: 'pptx' | 'odp', limits: ArchiveLimits): Deck {
  const parts = partsOf(bytes, limits, (path) => /\.(xml|rels)$/.test(path));
  return kind === 'pptx' ? readPptx(parts) : readOdp(parts);
}

/** Files that lie in a deck, by their paths. Throws `DeckError`. */
export function partsOf(
  bytes: Uint8Array,
  limits: ArchiveLimits,
  wanted: (path: string) => boolean,
): Map<string, Uint8Array> {
  try {
    return entries(bytes, limits, wanted);
  } catch (error) {
    if (error instanceof ArchiveError) throw new DeckError(error.fault);
    throw error;
  }
}

function utf16(text: string): Uint8Array {
  return Uint8Array.from([...text].flatMap((letter) => [letter.charCodeAt(0), 0]));
}

function holds(bytes: Uint8Array, part: Uint8Array): boolean {
  for (let at = bytes.indexOf(part[0]!); at >= 0; at = bytes.indexOf(part[0]!, at + 1))
    if (part.every((byte, i) => bytes[at + i] === byte)) return true;
  return false;
}
