import { DOMParser } from '@xmldom/xmldom';
import type { Document, Element } from '@xmldom/xmldom';
import { strFromU8 } from 'fflate';
import { DeckError } from './deck.js';

export type { Document, Element };

/** Reads a part of a deck. Throws `DeckError` for what isn't XML, or declares entities. */
export function parseXml(bytes: Uint8Array): Document {
  const text = strFromU8(bytes);
  // Neither format has any use for it, and entities can hide harm.
  if (text.includes('<!DOCTYPE') || text.includes('<!ENTITY')) throw new DeckError('unsafe');
  try {
    return new DOMParser({
      onError: (level, message) => {
        if (level !== 'warning') throw new Error(message);
      },
    }).parseFromString(text.replace(/^\ufeff/, ''), 'text/xml');
  } catch {
    throw new DeckError('broken');
  }
}

/** All elements of this name within another, in order; names without their namespace's prefix. */
export function all(within: Element | Document, name: string): Element[] {
  return [...within.getElementsByTagNameNS('*', name)];
}

export function first(within: Element | Document, name: string): Element | null {
  return within.getElementsByTagNameNS('*', name)[0] ?? null;
}

export function children(of: Element): Element[] {
  return [...of.childNodes].filter((node): node is Element => node.nodeType === 1);
}

/** An attribute by its name without its namespace's prefix. */
export function attribute(of: Element | null, name: string): string | null {
  if (!of) return null;
  for (const attribute of of.attributes) if (attribute.localName === name) return attribute.value;
  return null;
}
