import { decodeStroke, pack, specOf, ThingSpec, unpack } from '@cuaderno/core';
import type { Item } from '@cuaderno/core';

/** What an item is to us, without what the log knows of it: what standard annotations have no words for. */
export type Own =
  | { readonly kind: 'ink'; readonly ink: Uint8Array; readonly on?: string }
  | { readonly kind: 'thing'; readonly thing: ThingSpec };

/** Keys of our own in an annotation (ISO 32000-1, annex E: names that no standard uses). */
export const OWN = { item: 'CuaItem', seal: 'CuaSeal' } as const;

const INK = 1;
const INK_ON_SHEET = 2;
const THING = 3;

/** Its bytes: a first one that says what follows. */
export function packOwn(item: Item): Uint8Array {
  if (item.kind !== 'ink') return tagged(THING, pack(specOf(item)));
  if (!item.on) return tagged(INK, item.ink);
  return tagged(INK_ON_SHEET, pack({ ink: item.ink, on: item.on }));
}

/** `null` for what isn't exactly one item within the limits: the file came from anywhere. */
export function unpackOwn(bytes: Uint8Array): Own | null {
  try {
    const rest = bytes.slice(1);
    if (bytes[0] === INK) return inkOf(rest);
    if (bytes[0] === INK_ON_SHEET) {
      const { ink, on } = unpack(rest) as { ink: unknown; on: unknown };
      return ink instanceof Uint8Array && typeof on === 'string' ? { ...inkOf(ink), on } : null;
    }
    if (bytes[0] !== THING) return null;
    return { kind: 'thing', thing: ThingSpec.parse(unpack(rest)) };
  } catch {
    return null;
  }
}

function inkOf(ink: Uint8Array): Extract<Own, { kind: 'ink' }> {
  decodeStroke(ink);
  return { kind: 'ink', ink };
}

function tagged(tag: number, bytes: Uint8Array): Uint8Array {
  const all = new Uint8Array(bytes.length + 1);
  all[0] = tag;
  all.set(bytes, 1);
  return all;
}
