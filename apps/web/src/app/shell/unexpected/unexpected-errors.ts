import { ErrorHandler, Injectable, signal } from '@angular/core';
import { ProblemDetailsError } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';

const MISSING: ProblemDetails = {
  type: 'urn:cuaderno:screen-not-loaded',
  title: 'This part of Cuaderno didn’t come.',
  detail: 'Check the connection, then reload.',
};
const UNKNOWN: ProblemDetails = {
  type: 'urn:cuaderno:unexpected',
  title: 'Something on this screen went wrong.',
  detail: 'If it doesn’t do what you ask any more, reload it.',
};

/** What browsers say where a part of the application can't be loaded: Chromium, Firefox, WebKit, in this order. */
const NOT_LOADED =
  /dynamically imported module|error loading dynamically|importing a module script failed/i;

/** The words for an error that nobody expected; `null` where there is nothing to tell. */
export function wordsFor(error: unknown): ProblemDetails | null {
  if (error instanceof ProblemDetailsError) return error.problem;
  const { name = '', message = '' } = (error ?? {}) as Partial<Error>;
  // What was given up on purpose; and a browser's note that it will measure once more in its next frame.
  if (name === 'AbortError' || /ResizeObserver loop/.test(message)) return null;
  return NOT_LOADED.test(message) ? MISSING : UNKNOWN;
}

/**
 * The last net: an error that nobody caught, in a handler, a promise or on the way to a screen, is logged and told in
 * a sentence. Without it a button would simply do nothing.
 */
@Injectable({ providedIn: 'root' })
export class UnexpectedErrors extends ErrorHandler {
  readonly problem = signal<ProblemDetails | null>(null);
  private last: unknown = null;

  /** Also called twice for one error: the router tells of it, and then its promise fails. */
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
