import {
  decodeStroke,
  pack,
  specOf,
  STORED_VERSION,
  ItemSpec,
  unpack,
  upgradeStored,
} from '@cuaderno/core';
import type { Item } from '@cuaderno/core';

/** What an item is to us, without what the log knows of it: what standard annotations have no words for. */
export type Own =
  | { readonly kind: 'ink'; readonly ink: Uint8Array; readonly on?: string }
  | { readonly kind: 'placed'; readonly spec: ItemSpec };

/** Keys of our own in an annotation (ISO 32000-1, annex E: names that no standard uses). */
export const OWN = { item: 'CuaItem', seal: 'CuaSeal' } as const;

const INK = 1;
const INK_ON_SHEET = 2;
/** An item in the first version of our words; one of a later version has that in a second byte. */
const FIRST_PLACED = 3;
const PLACED = 4;

/** Its bytes: a first one that says what follows. */
export function packOwn(item: Item): Uint8Array {
  if (item.kind !== 'ink') return tagged(PLACED, tagged(STORED_VERSION, pack(specOf(item))));
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
    if (bytes[0] === FIRST_PLACED) return itemOf(rest, 1);
    return bytes[0] === PLACED ? itemOf(rest.slice(1), rest[0]) : null;
  } catch {
    return null;
  }
}

function inkOf(ink: Uint8Array): Extract<Own, { kind: 'ink' }> {
  decodeStroke(ink);
  return { kind: 'ink', ink };
}

function itemOf(bytes: Uint8Array, version: unknown): Extract<Own, { kind: 'placed' }> {
  const item = upgradeStored('item', unpack(bytes), version);
  return { kind: 'placed', spec: ItemSpec.parse(item) };
}

function tagged(tag: number, bytes: Uint8Array): Uint8Array {
  const all = new Uint8Array(bytes.length + 1);
  all[0] = tag;
  all.set(bytes, 1);
  return all;
}
