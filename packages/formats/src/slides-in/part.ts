import { strFromU8 } from 'fflate';
import { parseXml, XmlError } from '../xml/index.js';
import type { Document } from '../xml/index.js';
import { DeckError } from './deck.js';

/** Reads a part of a deck. Throws `DeckError` for what isn't XML, or declares entities. */
export function parsePart(bytes: Uint8Array): Document {
  try {
    return parseXml(strFromU8(bytes));
  } catch (error) {
    throw error instanceof XmlError ? new DeckError(error.fault) : error;
  }
}
