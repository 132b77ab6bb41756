import type { Id } from '../id/index.js';
import type { OrderKey } from '../order/index.js';

/*
 * A lesson may be on several boards, and its record is one: the pages of the first, then those of the second, and so on.
 * Two boards may have pages of one id, as where one was made of the other's file. So each page but those of the first
 * board has another id in the record, that is reckoned from its own and its board's; nothing has to be kept for it.
 */

/** A board of a record. */
export interface RecordBoard {
  readonly id: Id;
  /** Which of its boards it is, from 0. */
  readonly place: number;
}

/** The characters of an id, as nanoid has them, in an order of our own. */
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789_-';

/** What a board's page is called in the record. */
export function pageInRecord(page: Id, { id, place }: RecordBoard): Id {
  if (place === 0) return page;
  const shifted = (letter: string, i: number): string =>
    LETTERS[(LETTERS.indexOf(letter) + LETTERS.indexOf(id[i]!)) % LETTERS.length]!;
  return [...page].map(shifted).join('');
}

/** What comes before the order keys of all boards but the first: no key that somebody made begins so. */
const AFTER_ALL = 'zz';
const DIGITS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';
/** Longest key that is one. */
const LONGEST = 200;

/** A page's place in the order of the record: after all pages of the boards before its own. */
export function orderInRecord(order: OrderKey, { place }: RecordBoard): OrderKey {
  if (place === 0) return order;
  const digits = DIGITS[Math.floor(place / DIGITS.length)]! + DIGITS[place % DIGITS.length]!;
  return `${AFTER_ALL}${digits}${order}`.slice(0, LONGEST);
}

/** Which board of the record a page of it is of, from 0. */
export function placeOf({ order }: { readonly order: OrderKey }): number {
  if (!order.startsWith(AFTER_ALL) || order.length <= AFTER_ALL.length + 2) return 0;
  const [high, low] = [...order.slice(AFTER_ALL.length)].map((digit) => DIGITS.indexOf(digit));
  return high! * DIGITS.length + low!;
}
