import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';
import * as z from 'zod';

/**
 * A place in an order, as a string that sorts by its characters. A new place fits between any two,
 * so that a move changes one item and never renumbers its neighbours.
 */
export const OrderKey = z
  .string()
  .min(1)
  .max(200)
  .regex(/^[0-9A-Za-z]+$/);
export type OrderKey = z.infer<typeof OrderKey>;

/** A key between two others; `null` stands for the start or the end. Throws if `before >= after`. */
export function keyBetween(before: OrderKey | null, after: OrderKey | null): OrderKey {
  return generateKeyBetween(before, after);
}

/** `count` keys in order between two others. */
export function keysBetween(
  before: OrderKey | null,
  after: OrderKey | null,
  count: number,
): OrderKey[] {
  return generateNKeysBetween(before, after, count);
}

/** Whether a key came from this package: a made-up key could break every insertion after it. */
export function isOrderKey(key: string): boolean {
  try {
    generateKeyBetween(key, null);
    return true;
  } catch {
    return false;
  }
}

/** Sorts by key; two people who inserted at the same place are told apart by id, everywhere alike. */
export function byOrder(
  a: { order: OrderKey; id: string },
  b: { order: OrderKey; id: string },
): number {
  if (a.order !== b.order) return a.order < b.order ? -1 : 1;
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}
