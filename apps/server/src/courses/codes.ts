import { customAlphabet } from 'nanoid';

/**
 * Letters and digits that neither look nor sound alike when read out in English: no 0/O, 1/I/L,
 * 2/Z, 5/S, 8/B, no B/D/P/T/V, no M/N, no F/X, no vowels but A, so that no word comes of it.
 */
const READ_OUT = 'ACGHJKMQRWY34679';

/** Characters in a join code; 16^7 are 268 million, and guessing is slowed down. */
export const CODE_LENGTH = 7;

export const newJoinCode = customAlphabet(READ_OUT, CODE_LENGTH);

/** In the join link: 120 random bits. */
export const newLinkToken = customAlphabet('0123456789abcdefghjkmnpqrstvwxyz', 24);

/** A join code as someone typed it: spaces, dashes and case don't matter. */
export function readCode(typed: string): string {
  return typed.toUpperCase().replace(/[^A-Z0-9]/g, '');
}
