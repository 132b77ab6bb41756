import { XMLSerializer } from '@xmldom/xmldom';
import { strToU8, zipSync } from 'fflate';
import type { Zippable } from 'fflate';
import { ArchiveError, entries } from '../archive/index.js';
import type { ArchiveLimits } from '../archive/index.js';
import { DeckError } from './deck.js';
import { withoutOutsideOle } from './ole.js';
import type { DeckKind } from './read-deck.js';
import { parsePart } from './part.js';
import type { Element } from '../xml/index.js';

/*
 * A deck may name what lies outside of it: pictures on a server, files of the machine that opens it. Anyone who turns it
 * into pages would fetch them, and show on a page what isn't for anyone to see. They are taken out before.
 */

/** Decks in decks in decks are looked into; what is deeper is taken out. */
const DEEPEST = 3;

/**
 * The deck without anything that lies outside of it. Links that are there to be followed stay.
 * Throws `DeckError` for what can't be read.
 */
export function withoutOutside(
  deck: Uint8Array,
  kind: DeckKind,
  limits: ArchiveLimits,
): Uint8Array {
  return kind === 'ppt' ? withoutOutsideOle(deck) : closedArchive(deck, limits, 0);
}

function closedArchive(archive: Uint8Array, limits: ArchiveLimits, depth: number): Uint8Array {
  let parts: Map<string, Uint8Array>;
  try {
    parts = entries(archive, limits, () => true);
  } catch (error) {
    if (error instanceof ArchiveError)
      throw new DeckError(error.fault === 'broken' ? 'broken' : error.fault);
    throw error;
  }
  const closed: Zippable = {};
  for (const [path, bytes] of parts) {
    // Bytes that were packed once don't get smaller; the type of an OpenDocument stands in plain sight.
    const level = /\.(xml|rels|vml|svg)$/i.test(path) && path !== 'mimetype' ? 1 : 0;
    closed[path] = [closedPart(path, bytes, limits, depth), { level }];
  }
  return zipSync(closed);
}

function closedPart(
  path: string,
  bytes: Uint8Array,
  limits: ArchiveLimits,
  depth: number,
): Uint8Array {
  if (isZip(bytes))
    return depth < DEEPEST ? closedArchive(bytes, limits, depth + 1) : new Uint8Array();
  if (isOle(bytes)) return withoutOutsideOle(bytes);
  if (/\.rels$/i.test(path)) return rewritten(bytes, closeRelations);
  if (isMarkup(bytes)) return rewritten(bytes, isDrawing(bytes) ? closeDrawing : closeMarkup);
  return bytes;
}

function isZip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;
}

/** MS-CFB, 2.2 */
function isOle(bytes: Uint8Array): boolean {
  return bytes[0] === 0xd0 && bytes[1] === 0xcf && bytes[2] === 0x11 && bytes[3] === 0xe0;
}

/** Whether it is markup, in whatever letters: bytes are looked at, not names. */
function isMarkup(bytes: Uint8Array): boolean {
  let at = bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf ? 3 : 0;
  // In letters of two bytes it is none that we read: `parsePart` refuses it.
  if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff))
    return true;
  while ([0x20, 0x09, 0x0a, 0x0d].includes(bytes[at] ?? 0)) at++;
  return bytes[at] === 0x3c || (bytes[at] === 0 && bytes[at + 1] === 0x3c);
}

function isDrawing(bytes: Uint8Array): boolean {
  const head = new TextDecoder().decode(bytes.subarray(0, 4000));
  return /<(\w+:)?svg[\s>]/i.test(head);
}

/** @param close takes out of an element what lies outside; returns whether it changed anything */
function rewritten(bytes: Uint8Array, close: (element: Element) => boolean): Uint8Array {
  const document = parsePart(bytes);
  let changed = false;
  for (const element of [...document.getElementsByTagName('*')])
    changed = close(element) || changed;
  return changed ? strToU8(new XMLSerializer().serializeToString(document)) : bytes;
}

/** A place that isn't in the package: with a scheme, from the root of a disk or a server, or above the package. */
function isOutside(place: string): boolean {
  // What a browser passes over in an address is passed over here, too.
  const plain = [...place].filter((letter) => letter > ' ').join('');
  if (/^data:/i.test(plain)) return false;
  return /^([a-z][a-z0-9+.-]*:|[/\\]|.*(^|[/\\])\.\.([/\\]|$))/i.test(plain);
}

/** A link that is there to be followed by who reads the page. */
function isLink(place: string): boolean {
  return /^(https?|mailto):/i.test(place.trim());
}

/** Relations of a part of an Office document to others (ECMA-376, part 2, 6.5.3). */
function closeRelations(element: Element): boolean {
  if (element.localName !== 'Relationship') return false;
  const target = element.getAttribute('Target') ?? '';
  const external = element.getAttribute('TargetMode')?.trim().toLowerCase() === 'external';
  const scheme = /^\s*[a-z][a-z0-9+.-]*:|^\s*[\\/]{2}/i.test(target);
  if (!external && !scheme) return false;
  const follows = /\/hyperlink$/.test(element.getAttribute('Type') ?? '') && isLink(target);
  if (follows) return false;
  element.parentNode?.removeChild(element);
  return true;
}

/** Attributes that name a place, in what Office documents and OpenDocument call them. */
const PLACES = [
  'href',
  'src',
  'link',
  'target',
  'url',
  'filename',
  'file-name',
  'action',
  'base',
  'macro',
];
/** Elements of OpenDocument that say of where their content is to be had elsewhere, and nothing else. */
const ELSEWHERE = [
  'dde-source',
  'dde-link',
  'dde-connection-decl',
  'event-listener',
  'script',
  'scripts',
];

function closeMarkup(element: Element): boolean {
  if (ELSEWHERE.includes(element.localName ?? '')) {
    element.parentNode?.removeChild(element);
    return true;
  }
  let changed = false;
  for (const attribute of [...element.attributes]) {
    const name = (attribute.localName ?? '').toLowerCase();
    const { value } = attribute;
    if (!PLACES.includes(name) || !isOutside(value)) continue;
    if (attribute.prefix === 'xmlns' || (element.localName === 'a' && isLink(value))) continue;
    element.removeAttributeNode(attribute);
    changed = true;
  }
  return changed;
}

/** A drawing (SVG) shows what is in it, and nothing else. */
function closeDrawing(element: Element): boolean {
  const name = (element.localName ?? '').toLowerCase();
  if (['script', 'foreignobject', 'style'].includes(name)) {
    element.parentNode?.removeChild(element);
    return true;
  }
  let changed = false;
  for (const attribute of [...element.attributes]) {
    const { value } = attribute;
    const local = (attribute.localName ?? '').toLowerCase();
    const leads = ['href', 'src', 'base'].includes(local) && !/^\s*(#|data:image\/)/i.test(value);
    const painted = /url\(\s*['"]?\s*(?!#|['"]?#)/i.test(value);
    const acts = local.startsWith('on');
    if (!leads && !painted && !acts) continue;
    element.removeAttributeNode(attribute);
    changed = true;
  }
  return changed;
}
