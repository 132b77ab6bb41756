import type { Id } from '@cuaderno/core';
import type { Database } from '../database/index.js';
import { pageTurns } from './tables.js';

/** How long somebody must stay on a page to have turned to it, in ms: leafing isn't looking. */
export const STAY = 800;

/** A page, and the board that it is on. */
interface Turned {
  readonly board: Id;
  readonly page: Id;
}

/** Who looked at which page when: what a record says about it. */
export class PageTurns {
  private readonly coming = new Map<string, ReturnType<typeof setTimeout>>();
  /** The page that each was on last, so that leafing there and back is no turn. */
  private readonly last = new Map<string, string>();

  /** Told where a turn could not be written down: nobody waits for it. */
  onFailed: (error: unknown) => void = () => undefined;

  constructor(private readonly db: Database) {}

  /** Somebody's window shows this page now. */
  note(lesson: Id, person: Id, { board, page }: Turned, at = Date.now()): void {
    const key = `${lesson} ${person}`;
    clearTimeout(this.coming.get(key));
    const timer = setTimeout(() => {
      this.coming.delete(key);
      const place = `${board} ${page}`;
      if (this.last.get(key) === place) return;
      this.last.set(key, place);
      this.db
        .insert(pageTurns)
        .values({ lesson, person, board, page, at })
        .catch((error: unknown) => {
          // Anyone who shows the page again has turned to it then.
          if (this.last.get(key) === place) this.last.delete(key);
          this.onFailed(error);
        });
    }, STAY).unref();
    this.coming.set(key, timer);
  }

  /** A lesson is over: nobody turns its pages any more. */
  forget(lesson: Id): void {
    const isOf = (key: string): boolean => key.startsWith(`${lesson} `);
    for (const [key, timer] of this.coming) {
      if (!isOf(key)) continue;
      clearTimeout(timer);
      this.coming.delete(key);
    }
    for (const key of this.last.keys()) if (isOf(key)) this.last.delete(key);
  }

  close(): void {
    for (const timer of this.coming.values()) clearTimeout(timer);
    this.coming.clear();
  }
}
