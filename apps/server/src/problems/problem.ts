import type { Problem } from '@cuaderno/core';
import { PROBLEMS } from './catalogue.js';
import type { ProblemCode } from './catalogue.js';

/** RFC 9457 problem details. `detail` may say it more closely than the catalogue does. */
export function problem(code: ProblemCode, detail?: string): Problem {
  const [status, title, next] = PROBLEMS[code];
  return { type: `urn:cuaderno:${code}`, title, status, detail: detail ?? next };
}

/** Thrown where something can't be done and the person should read why. */
export class ProblemError extends Error {
  override readonly name = 'ProblemError';
  readonly problem: Problem;
  /** Seconds to wait before trying again, where waiting helps. */
  readonly retryAfter: number | undefined;

  constructor(
    readonly code: ProblemCode,
    { detail, retryAfter }: { detail?: string; retryAfter?: number } = {},
  ) {
    super(PROBLEMS[code][1]);
    this.problem = problem(code, detail);
    this.retryAfter = retryAfter;
  }
}
