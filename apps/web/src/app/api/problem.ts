import * as z from 'zod';

/** What the server says when something can't be done (RFC 9457), or this window where nothing answers. */
export const ProblemDetails = z.object({
  type: z.string(),
  title: z.string().min(1),
  detail: z.string(),
});
export type ProblemDetails = Readonly<z.infer<typeof ProblemDetails>>;

/** Thrown where something can't be done; its words are for the person. */
export class ProblemDetailsError extends Error {
  override readonly name: string = 'ProblemDetailsError';
  constructor(readonly problem: ProblemDetails) {
    super(problem.title);
  }
}

/** What every request that fails ends with. */
export class ApiError extends ProblemDetailsError {
  override readonly name = 'ApiError';
  constructor(
    problem: ProblemDetails,
    readonly status: number,
  ) {
    super(problem);
  }

  /** The code behind `urn:cuaderno:`. */
  get code(): string {
    return this.problem.type.replace('urn:cuaderno:', '');
  }
}

export const NO_LINE: ProblemDetails = {
  type: 'urn:cuaderno:no-line',
  title: 'Cuaderno can’t be reached.',
  detail: 'Check the connection, then try again. Nothing is lost.',
};

/** What was answered isn't what was asked for: this page and the server are of two versions, or something is between. */
export const OTHER_ANSWER: ProblemDetails = {
  type: 'urn:cuaderno:other-answer',
  title: 'Cuaderno’s answer can’t be read here.',
  detail: 'Reload this page, then try again. Nothing is lost.',
};

/** A part of the application that is loaded when it is needed didn’t come. */
const MISSING: ProblemDetails = {
  type: 'urn:cuaderno:screen-not-loaded',
  title: 'This part of Cuaderno didn’t come.',
  detail: 'Check the connection, then reload.',
};
/** A fault of ours. */
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

/** Words for anything that was thrown by what was asked for. A fault of ours is logged, too: it is no lost connection. */
export function problemOf(error: unknown): ProblemDetails {
  if (error instanceof ProblemDetailsError) return error.problem;
  // eslint-disable-next-line no-console -- where else would it be found?
  console.error(error);
  return wordsFor(error) ?? UNKNOWN;
}
