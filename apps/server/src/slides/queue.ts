import type { Problem } from '@cuaderno/core';
import { newId } from '@cuaderno/core';
import type { FastifyBaseLogger } from 'fastify';
import PQueue from 'p-queue';
import type { BoardInfo } from '../boards/service.js';
import { problem, ProblemError } from '../problems/index.js';
import type { SlideNews } from './slide-imports.js';

/** How far an import is. */
export type JobState =
  /** How many are before it. */
  | { readonly kind: 'waiting'; readonly before: number }
  | { readonly kind: 'converting' }
  /** There is a board to look at; more is coming. */
  | { readonly kind: 'board'; readonly board: BoardInfo }
  | { readonly kind: 'done'; readonly board: BoardInfo }
  | { readonly kind: 'failed'; readonly problem: Problem };

interface SlidesJob {
  readonly id: string;
  readonly tutor: string;
  readonly work: (news: SlideNews, signal: AbortSignal) => Promise<void>;
  readonly abort: AbortController;
  state: 'waiting' | Exclude<JobState, { kind: 'waiting' }>;
}

/** How long the end of an import is remembered, in ms. */
const KEPT = 600_000;

/** Slides are converted one deck after the other: each takes all that a small machine has. */
export class ImportQueue {
  private readonly jobs = new Map<string, SlidesJob>();
  private readonly queue = new PQueue({ concurrency: 1 });

  constructor(private readonly log: FastifyBaseLogger) {}

  add(tutor: string, work: SlidesJob['work']): string {
    const job: SlidesJob = {
      id: newId(),
      tutor,
      work,
      abort: new AbortController(),
      state: 'waiting',
    };
    this.jobs.set(job.id, job);
    this.queue
      .add(async () => {
        await this.work(job);
        setTimeout(() => this.jobs.delete(job.id), KEPT).unref();
      })
      .catch((error: unknown) => this.log.error({ err: error }, 'an import of slides broke off'));
    return job.id;
  }

  /** How far it is; `null` where this tutor has no such import. */
  state(id: string, tutor: string): JobState | null {
    const job = this.jobs.get(id);
    if (!job || job.tutor !== tutor) return null;
    if (job.state !== 'waiting') return job.state;
    const waiting = [...this.jobs.values()].filter(
      ({ state }) => state === 'waiting' || state.kind === 'converting',
    );
    return { kind: 'waiting', before: waiting.indexOf(job) };
  }

  /** Gives an import up; a board that is there already stays. */
  cancel(id: string, tutor: string): boolean {
    const job = this.jobs.get(id);
    if (!job || job.tutor !== tutor) return false;
    job.abort.abort();
    return true;
  }

  /** Gives everything up, and waits until nothing runs. */
  async close(): Promise<void> {
    // What is asked for from here on isn't begun.
    this.queue.pause();
    this.queue.clear();
    for (const { abort } of this.jobs.values()) abort.abort();
    await this.settled();
  }

  /** Waits until nothing is left to be done. */
  async settled(): Promise<void> {
    await this.queue.onIdle();
  }

  private async work(job: SlidesJob): Promise<void> {
    let board: BoardInfo | null = null;
    job.state = { kind: 'converting' };
    try {
      await job.work(
        {
          board: (made) => {
            board = made;
            job.state = { kind: 'board', board: made };
          },
        },
        job.abort.signal,
      );
      job.state = { kind: 'done', board: board! };
    } catch (error) {
      if (board) {
        // The pages are there; what else was on the slides isn't.
        this.log.error({ err: error }, 'what slides hold besides their looks was not imported');
        job.state = { kind: 'done', board };
      } else if (error instanceof ProblemError)
        job.state = { kind: 'failed', problem: error.problem };
      else if (job.abort.signal.aborted) this.jobs.delete(job.id);
      else {
        this.log.error({ err: error }, 'slides could not be imported');
        job.state = { kind: 'failed', problem: problem('internal') };
      }
    }
  }
}
