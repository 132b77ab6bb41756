import type { FastifyRequest } from 'fastify';

/*
 * What the server's log says. Addresses have tokens and names in them, and errors of the database what was to be
 * written: a log is read by others than those it is about, and kept longer.
 */

/** A request, by its route: never its address, which may be a link that lets somebody in. */
export function loggedRequest(request: FastifyRequest): Record<string, unknown> {
  return {
    method: request.method,
    route: (request as Partial<FastifyRequest>).routeOptions?.url ?? '(no route)',
    remoteAddress: request.ip,
  };
}

/** Where the values begin that a statement was to be done with. */
const VALUES = /\n?params: [\s\S]*/;

interface LoggedError {
  readonly [key: string]: unknown;
  readonly type: string;
  readonly message: string;
  readonly stack: string;
}

/** An error, without the values that a statement was to be done with. */
export function loggedError(error: unknown): LoggedError {
  if (!(error instanceof Error)) return { type: typeof error, message: '', stack: '' };
  const { code } = error as { code?: unknown };
  return {
    type: error.name,
    message: error.message.replace(VALUES, ''),
    stack: withoutValues(error.stack ?? ''),
    ...(typeof code === 'string' ? { code } : {}),
    ...(error.cause instanceof Error ? { cause: loggedError(error.cause) } : {}),
  };
}

function withoutValues(stack: string): string {
  // The message comes first, then where it was thrown.
  const at = stack.search(/\n\s+at /);
  return at < 0
    ? stack.replace(VALUES, '')
    : stack.slice(0, at).replace(VALUES, '') + stack.slice(at);
}
