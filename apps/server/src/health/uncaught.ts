import type { FastifyBaseLogger } from 'fastify';
import fp from 'fastify-plugin';

declare module 'fastify' {
  interface FastifyInstance {
    uncaught: Uncaught;
  }
}

/** Errors that nobody expected: each is logged and counted, and the server goes on for everyone else. */
export class Uncaught {
  count = 0;
  /** When there was one last, in ms since 1970. */
  lastAt: number | null = null;

  constructor(private readonly log: FastifyBaseLogger) {}

  /** @param where what the server was about, in a word or two */
  readonly caught = (error: unknown, where: string): void => {
    this.count++;
    this.lastAt = Date.now();
    this.log.error({ err: error, where }, 'an error that nobody expected: the server goes on');
  };

  /**
   * Catches what nothing else has. Such an error belongs to one message or one job; ending the process would end the
   * lesson of everyone else.
   */
  watch(process: NodeJS.Process): void {
    process.on('uncaughtException', (error) => this.caught(error, 'the process'));
    process.on('unhandledRejection', (error) => this.caught(error, 'a promise'));
  }
}

export const uncaught = fp(
  (app, _options, done) => {
    app.decorate('uncaught', new Uncaught(app.log));
    done();
  },
  { name: 'uncaught' },
);
