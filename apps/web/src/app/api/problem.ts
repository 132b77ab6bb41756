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

/** Words for anything that was thrown. */
export function problemOf(error: unknown): ProblemDetails {
  return error instanceof ProblemDetailsError ? error.problem : NO_LINE;
}
