import type { Id } from '../id/index.js';
import type { Redaction } from './operation.js';

/** What somebody added is theirs. */
export function noteAdded({ id }: { readonly id: Id }, by: Id, { who, items }: Redaction): boolean {
  if (who.has(by)) items.add(id);
  return who.has(by);
}

/** What is done to an item of theirs shows what it was: a line that was moved carries its ink. */
export function isOfTheirs(
  { item }: { readonly item: Id },
  _by: Id,
  { items }: Redaction,
): boolean {
  return items.has(item);
}
