import { ErrorHandler, Injectable, signal } from '@angular/core';
import { wordsFor } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';

/**
 * The last net: an error that nobody caught, in a handler, a promise or on the way to a screen, is logged and told in
 * a sentence. Without it a button would simply do nothing.
 */
@Injectable({ providedIn: 'root' })
export class UnexpectedErrors extends ErrorHandler {
  readonly problem = signal<ProblemDetails | null>(null);
  private last: unknown = null;

  /** Also called twice for one error: the router reports it, and then its promise fails. */
  override handleError(error: unknown): void {
    if (error === this.last) return;
    this.last = error;
    const words = wordsFor(error);
    if (!words) return;
    super.handleError(error);
    this.problem.set(words);
  }

  dismiss(): void {
    this.problem.set(null);
  }
}
