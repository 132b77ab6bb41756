import type { FastifyError, FastifyReply } from 'fastify';
import fp from 'fastify-plugin';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import type { Problem } from '@cuaderno/core';
import { problem, ProblemError } from './problem.js';

function send(reply: FastifyReply, details: Problem): FastifyReply {
  return reply
    .status(details.status)
    .header('content-type', 'application/problem+json; charset=utf-8')
    .serializer((value: unknown) => JSON.stringify(value))
    .send(details);
}

/** Whether what went wrong is that there is no room left: of a file, or of the database. */
export function isDiskFull(error: unknown): boolean {
  const { code = '', message = '' } = error as { code?: string; message?: string };
  return code === 'ENOSPC' || /ENOSPC|SQLITE_FULL|disk is full/.test(`${code} ${message}`);
}

/** Answers every error with problem details; says nothing of what is inside. */
export const problems = fp(
  (app, _options, done) => {
    app.setErrorHandler((error: FastifyError, request, reply) => {
      if (error instanceof ProblemError) {
        if (error.retryAfter) reply.header('retry-after', String(error.retryAfter));
        return send(reply, error.problem);
      }
      if (hasZodFastifySchemaValidationErrors(error)) {
        return send(reply, problem('bad-request', error.validation[0]?.message));
      }
      if (isDiskFull(error)) return send(reply, problem('disk-full'));
      if (error.statusCode === 429) return send(reply, problem('slow-down'));
      if (error.statusCode === 413) return send(reply, problem('too-large'));
      if (error.statusCode && error.statusCode < 500) return send(reply, problem('bad-request'));
      request.log.error({ err: error }, 'a request failed');
      return send(reply, problem('internal'));
    });
    done();
  },
  { name: 'problems' },
);
