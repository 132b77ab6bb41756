import { signal } from '@angular/core';
import { problemOf } from './problem';
import type { ProblemDetails } from './problem';

/** What a screen asks of the server: whether it is under way, and what went wrong with the last of it. */
export class Attempt {
  private readonly underWay = signal(false);
  private readonly failed = signal<ProblemDetails | null>(null);
  readonly busy = this.underWay.asReadonly();
  /** `null` while nothing is wrong: what went wrong before is forgotten when something new is tried. */
  readonly problem = this.failed.asReadonly();
  private last = 0;

  /** What went wrong before isn't told any more. */
  forget(): void {
    this.failed.set(null);
  }

  /**
   * Tries it, and resolves with whether it went well; never rejects. Of several at once, the last that was begun says how
   * it stands.
   */
  async make(what: () => Promise<void>): Promise<boolean> {
    const number = ++this.last;
    this.underWay.set(true);
    this.failed.set(null);
    let problem: ProblemDetails | null = null;
    try {
      await what();
    } catch (error) {
      problem = problemOf(error);
    }
    if (number === this.last) {
      this.underWay.set(false);
      this.failed.set(problem);
    }
    return problem === null;
  }
}
