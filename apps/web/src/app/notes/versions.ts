import type { Note } from '../api/shapes';

/** The version that none follows. */
export function newestOf(versions: readonly Note[]): Note | null {
  const followed = new Set(versions.map(({ follows }) => follows));
  return versions.find(({ id }) => !followed.has(id)) ?? null;
}
