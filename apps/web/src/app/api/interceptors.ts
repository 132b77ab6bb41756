import { HttpErrorResponse } from '@angular/common/http';
import type { HttpEvent, HttpHandlerFn, HttpRequest } from '@angular/common/http';
import { inject } from '@angular/core';
import { catchError, from, mergeMap, throwError } from 'rxjs';
import type { Observable } from 'rxjs';
import { ApiError, NO_LINE, ProblemDetails } from './problem';
import { SignedOut } from './signed-out';

/** What went wrong, in the server's words or ours. */
async function problemIn({ error }: HttpErrorResponse): Promise<ProblemDetails> {
  // Who asked for bytes has a problem in bytes, too.
  const told: unknown =
    error instanceof Blob
      ? await error.text().then(parsed)
      : error instanceof ArrayBuffer
        ? parsed(new TextDecoder().decode(error))
        : error;
  const problem = ProblemDetails.safeParse(told);
  // Some proxy answered, or nobody: the words for a lost connection fit.
  return problem.success ? problem.data : NO_LINE;
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}

/** Everything that fails, fails with an `ApiError`. */
export function problems(
  request: HttpRequest<unknown>,
  next: HttpHandlerFn,
): Observable<HttpEvent<unknown>> {
  return next(request).pipe(
    catchError((error: unknown) =>
      error instanceof HttpErrorResponse
        ? from(problemIn(error)).pipe(
            mergeMap((problem) => throwError(() => new ApiError(problem, error.status))),
          )
        : throwError(() => error),
    ),
  );
}

/** What was to be done by who isn't signed in any more waits until they are, and is done then. */
export function signInAgain(
  request: HttpRequest<unknown>,
  next: HttpHandlerFn,
): Observable<HttpEvent<unknown>> {
  const signedOut = inject(SignedOut);
  const since = signedOut.times;
  return next(request).pipe(
    catchError((error: unknown) =>
      error instanceof ApiError && error.code === 'not-signed-in'
        ? from(signedOut.signedInAgain(since)).pipe(
            mergeMap((isSignedIn) => (isSignedIn ? next(request) : throwError(() => error))),
          )
        : throwError(() => error),
    ),
  );
}
