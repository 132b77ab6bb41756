import { DOMParser } from '@xmldom/xmldom';
import type { Document, Element } from '@xmldom/xmldom';

export type { Document, Element };

/** What was to be XML isn't, or declares what can hide harm. */
export class XmlError extends Error {
  override readonly name = 'XmlError';
  constructor(readonly fault: 'unsafe' | 'broken') {
    super(fault);
  }
}

/**
 * Reads XML (W3C, fifth edition), with or without a byte order mark. No format that we read has any use for a
 * document type, and entities can unfold without end: anyone who declares one is refused. Throws `XmlError`.
 */
export function parseXml(text: string): Document {
  if (text.includes('<!DOCTYPE') || text.includes('<!ENTITY')) throw new XmlError('unsafe');
  try {
    return new DOMParser({
      onError: (level, message) => {
        if (level !== 'warning') throw new Error(message);
      },
    }).parseFromString(text.replace(/^\ufeff/, ''), 'text/xml');
  } catch {
    throw new XmlError('broken');
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
