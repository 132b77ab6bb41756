import type { Id } from '@cuaderno/core/id';
import { lasting } from '../browser/storage';

/** With what the name of everything begins that is kept until the server has confirmed it. */
export const PENDING = 'cuaderno.pending';

/** What somebody did on a board that the server has not confirmed. */
export interface KeptByPerson {
  readonly board: Id;
  readonly person: Id;
  /** How many operations that is. */
  readonly count: number;
}

/** On which boards and as whom something was done in this browser that the server has not confirmed. */
export function keptByPeople(storage: Storage = lasting): KeptByPerson[] {
  const found = new Map<string, KeptByPerson>();
  for (let i = 0; i < storage.length; i++) {
    const [app, pending, board, person, place] = storage.key(i)!.split('.');
    if (`${app}.${pending}` !== PENDING || !board || !person || !place) continue;
    const key = `${board}.${person}`;
    found.set(key, { board, person, count: (found.get(key)?.count ?? 0) + 1 });
  }
  return [...found.values()];
}
