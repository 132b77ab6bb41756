import type { Answer } from '@cuaderno/contract/route';
import type { readLesson } from '@cuaderno/contract/routes/lessons';
import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { LessonsApi } from '../../api/lessons-api';
import { ApiError, problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { BoardSession, LateWork } from '../../live/board-session';
import { BoardSessions } from '../../live/board-sessions';
import { LateOffers } from '../../records/late-lines/late-offers';

/** For how long late work is gathered before it is offered, in ms. */
const GATHER = 150;

type StudentLesson = Answer<typeof readLesson>;

/**
 * The lesson that a student's screen shows: its line to the server, what keeps it away, its end, and what was written
 * while the line was away. Provided by that screen; it goes with it.
 */
@Injectable()
export class OpenLesson {
  private readonly lessonsApi = inject(LessonsApi);
  private readonly router = inject(Router);
  private readonly sessions = inject(BoardSessions);
  private readonly over = signal(false);
  /** Late work by its person, until it is offered together. */
  private lateWork: LateWork[] = [];

  readonly late = inject(LateOffers);
  readonly session = signal<BoardSession | null>(null);
  readonly info = signal<StudentLesson | null>(null);
  /** What keeps it away. */
  readonly problem = signal<ProblemDetails | null>(null);
  readonly line = computed(() => this.session()?.line() ?? 'joining');
  readonly ended = computed(() => this.over() || this.line() === 'over');
  /** What was done here, now or on an earlier visit, and has not arrived. */
  readonly unsent = computed(() => Math.max(this.session()?.unconfirmed() ?? 0, this.late.stuck()));

  constructor() {
    void this.late.prepare();
    void this.enter();
    effect(() => {
      // Sent out: what happens next is said at the door.
      if (this.line() === 'door') untracked(() => void this.toDoor());
    });
    effect(() => {
      // What earlier visits have left, and what became of what was late.
      const session = this.session();
      if (session?.line() !== 'live') return;
      const me = session.me();
      untracked(() => void this.late.offerKept(me));
    });
    effect(() => {
      if (this.session()?.features.invalidation.late()) untracked(() => void this.late.load());
    });
    effect(() => {
      if (this.over()) untracked(() => void this.late.offerKept(null));
    });
    const done = this.late.done.subscribe((ids) => this.session()?.settled(ids));
    inject(DestroyRef).onDestroy(() => {
      done.unsubscribe();
      this.late.rest();
      this.session()?.close();
    });
  }

  /** Goes in, or to the door, or says why not. */
  async enter(): Promise<void> {
    this.problem.set(null);
    try {
      this.info.set(await firstValueFrom(this.lessonsApi.readLesson()));
      const session = this.sessions.open('/live/lesson');
      session.late.subscribe((work) => this.takeLate(work));
      this.session.set(session);
    } catch (error) {
      if (error instanceof ApiError && error.code === 'lesson-over') this.over.set(true);
      else if (error instanceof ApiError && error.code === 'at-the-door') await this.toDoor();
      else this.problem.set(problemOf(error));
    }
  }

  /** What is refused one by one goes to the tutor together. */
  private takeLate(work: LateWork): void {
    this.lateWork.push(work);
    if (this.lateWork.length === 1) setTimeout(() => void this.offerLate(), GATHER);
  }

  private async offerLate(): Promise<void> {
    const [first, ...rest] = this.lateWork;
    this.lateWork = [];
    const ops = [...first!.ops, ...rest.flatMap((work) => work.ops)];
    // Out of reach, it stays in this browser and goes when there is a connection.
    await this.late.offer(first!.board, first!.person, ops).catch(() => undefined);
    if (this.ended()) await this.late.offerKept(null);
  }

  private async toDoor(): Promise<void> {
    await this.router.navigateByUrl('/door', { replaceUrl: true });
  }
}
