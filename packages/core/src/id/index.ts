import { nanoid } from 'nanoid';
import { z } from 'zod';

export * from './file-hash.js';

/** Characters in an id. 12 of nanoid's 64 characters are 72 random bits. */
export const ID_LENGTH = 12;

/**
 * The id of anything a person can make: an operation, an item, a page, a board, a person.
 * Whoever makes the thing makes its id, so that work can go on while the network is away.
 */
export const Id = z.string().regex(/^[A-Za-z0-9_-]{12}$/, 'an id has 12 letters or digits');
export type Id = z.infer<typeof Id>;

export function newId(): Id {
  return nanoid(ID_LENGTH);
}
