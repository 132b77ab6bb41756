import { fork } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { FastifyBaseLogger } from 'fastify';
import type { DarkroomNews, DarkroomTask } from './image-process-main.js';
import type { PictureNews } from './prepare.js';
import type { ShowNews, ShowTask } from './show.js';

/** Longest that one picture may take, in ms. */
const LIMIT = 60_000;
/** How long the process waits for another picture before it ends, in ms. */
const IDLE = 60_000;
/** Memory for its JavaScript, in MB; what is decoded lies beside it and is bounded by its pixels. */
const MEMORY = 512;

const PROGRAM = fileURLToPath(new URL('./image-process-main.js', import.meta.url));

interface ImageJob {
  readonly task: DarkroomTask;
  readonly done: (news: DarkroomNews) => void;
}

const BROKEN = { kind: 'fault', fault: 'broken' } as const;

/**
 * Where pictures are decoded: a process of its own, one picture at a time, with limits. Decoders are
 * native code fed with whatever is sent; if one dies of a file, only that file is refused.
 */
export class ImageProcess {
  /** The process, while there is one; for tests. */
  child: ChildProcess | null = null;
  private readonly waiting: ImageJob[] = [];
  private current: ImageJob | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly log: Pick<FastifyBaseLogger, 'warn'>) {}

  prepare(path: string): Promise<PictureNews> {
    return this.do({ kind: 'prepare', path }) as Promise<PictureNews>;
  }

  /** A picture of a page of a PDF, or of a picture. */
  show(task: ShowTask): Promise<ShowNews> {
    return this.do({ kind: 'show', ...task }) as Promise<ShowNews>;
  }

  private do(task: DarkroomTask): Promise<DarkroomNews> {
    return new Promise((done) => {
      this.waiting.push({ task, done });
      this.next();
    });
  }

  async close(): Promise<void> {
    clearTimeout(this.timer);
    const { child } = this;
    if (!child) return;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill();
    await gone;
  }

  private next(): void {
    if (this.current) return;
    clearTimeout(this.timer);
    const job = this.waiting.shift();
    if (!job) {
      this.timer = setTimeout(() => {
        this.child?.kill();
        this.child = null;
      }, IDLE).unref();
      return;
    }
    this.current = job;
    this.timer = setTimeout(() => {
      this.log.warn({ path: job.task.path }, 'a picture took too long');
      this.child?.kill('SIGKILL');
    }, LIMIT);
    (this.child ??= this.start()).send(job.task);
  }

  private finish(news: DarkroomNews): void {
    const job = this.current;
    this.current = null;
    job?.done(news);
    this.next();
  }

  private start(): ChildProcess {
    const child = fork(PROGRAM, {
      serialization: 'advanced',
      execArgv: [`--max-old-space-size=${MEMORY}`],
      // Nothing of ours is its business.
      env: { PATH: process.env['PATH'] },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    child.on('message', (news: DarkroomNews) => this.finish(news));
    // What went wrong is told by its exit.
    child.on('error', () => undefined);
    child.on('exit', (code, signal) => {
      if (this.child !== child) return;
      this.child = null;
      if (!this.current) return;
      this.log.warn(
        { code, signal, path: this.current.task.path },
        'a picture could not be decoded',
      );
      this.finish(BROKEN);
    });
    return child;
  }
}
