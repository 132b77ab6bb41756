import { nanoid } from 'nanoid';
import * as z from 'zod';

export * from './file-hash.js';

/** Characters in an id. 12 of nanoid's 64 characters are 72 random bits. */
export const ID_LENGTH = 12;

const ID = /^[A-Za-z0-9_-]{12}$/;

/**
 * The id of anything a person can make: an operation, an item, a page, a board, a person.
 * The one who makes the item makes its id, so that work can go on while the network is away.
 */
export const Id = z.string().regex(ID, 'an id has 12 letters or digits');
export type Id = z.infer<typeof Id>;

/** From one id to `most`. They are looked at together: one message may name thousands. */
export function ids(most: number): z.ZodType<Id[]> {
  const areIds = (value: unknown): boolean =>
    Array.isArray(value) &&
    value.length >= 1 &&
    value.length <= most &&
    value.every((id) => typeof id === 'string' && ID.test(id));
  return z.custom<Id[]>(areIds, `these are 1 to ${most} ids`).meta({
    ...{ type: 'array', minItems: 1, maxItems: most },
    items: { type: 'string', pattern: ID.source },
  });
}

export function newId(): Id {
  return nanoid(ID_LENGTH);
}
