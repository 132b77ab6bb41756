import type { Answer } from '@cuaderno/contract/route';
import type { Id } from '@cuaderno/core/id';
import type { readLesson } from '@cuaderno/contract/routes/lessons';
import { teaches } from '@cuaderno/core/permissions';
import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { LessonsApi } from '../../api/lessons-api';
import { ApiError, problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { BoardSession, LateWork } from '../../live/board-session';
import type { LessonLine } from '../../live/lesson-line';
import { LessonLines } from '../../live/lesson-lines';
import type { PlacedView } from '../../live/features/in-step/in-step-state';
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
  private readonly lines = inject(LessonLines);
  private readonly over = signal(false);
  /** Late work by its person, until it is offered together. */
  private lateWork: LateWork[] = [];

  readonly late = inject(LateOffers);
  /** The board that is in sight. */
  readonly session = signal<BoardSession | null>(null);
  /** The one that comes next; the other stays in sight until it is here. */
  private readonly coming = signal<BoardSession | null>(null);
  private readonly dialled = signal<LessonLine | null>(null);
  readonly info = signal<StudentLesson | null>(null);
  /** What keeps it away. */
  readonly problem = signal<ProblemDetails | null>(null);
  readonly line = computed(() => this.dialled()?.line() ?? 'joining');
  readonly ended = computed(() => this.over() || this.line() === 'over');
  /** Boards that are open here, by their ids. */
  readonly boards = computed<ReadonlyMap<Id, BoardSession>>(
    () => this.dialled()?.boards() ?? new Map<Id, BoardSession>(),
  );
  /** What was done here, now or on an earlier visit, and has not arrived. */
  readonly unsent = computed(() => Math.max(this.dialled()?.unconfirmed() ?? 0, this.late.stuck()));
  /** What the board in sight is called. */
  readonly title = computed(() => this.session()?.board().title || this.info()?.title || '');
  /** The boards that this student may choose from; `null` where there is nothing to choose. */
  readonly choices = computed(() => {
    const session = this.session();
    if (!session?.ready()) return null;
    const { features } = session;
    const boards = features.lessonBoards.shown();
    const follows = features.inStep.on() && features.pens.lead() !== session.me();
    const isFree = session.applies()(null).turn && !follows;
    return boards.length > 1 && isFree ? boards : null;
  });
  /** The board of the one who leads, if that is another than the one in sight; `null` where it isn't known or for all. */
  readonly ledTo = computed(() => {
    const session = this.session();
    if (!session) return null;
    const { people, features } = session;
    const lead = features.pens.lead();
    const leader = people().find(({ id, role }) => (lead ? id === lead : role === 'tutor'));
    const board = leader?.board;
    if (!board || leader.id === session.me() || board === session.id()) return null;
    const there = features.lessonBoards.shown().find(({ id }) => id === board);
    return there ? { ...there, who: lead ? leader.name : 'Your tutor' } : null;
  });

  constructor() {
    void this.late.prepare();
    void this.enter();
    effect(() => {
      // Sent out: what happens next is said at the door.
      if (this.line() === 'door') untracked(() => void this.toDoor());
    });
    effect(() => {
      // Something else from now on: all comes anew, on a line of its own.
      if (this.dialled()?.isOfAnother()) untracked(() => this.comeInAnew());
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
    effect(() => {
      const coming = this.coming();
      if (coming && coming !== this.session() && coming.ready())
        untracked(() => this.session.set(coming));
    });
    effect(() => {
      // In step: on the board of the one who leads, too.
      const line = this.dialled();
      const led = line?.features.inStep.on() ? line.features.inStep.led() : null;
      const leads = line?.features.pens.lead() === line?.me();
      // One who helps looks where they like.
      const helps = teaches(line?.role() ?? 'student');
      if (led && !leads && !helps) untracked(() => this.goTo(led.board));
    });
    effect(() => {
      // In step, a board that comes next is here before the one who leads has it in sight.
      const line = this.dialled();
      if (!line?.features.inStep.on() || line.line() !== 'live') return;
      const shown = line.features.lessonBoards.shown();
      untracked(() => {
        for (const { id } of shown) line.openBehind(id);
      });
    });
    effect(() => {
      // Who can't turn pages alone is where the one who leads is.
      const session = this.session();
      const led = this.ledTo();
      if (led && session && !session.applies()(null).turn) untracked(() => this.goTo(led.id));
    });
    effect(() => {
      // The class hasn't that board any more, or this one comes too late for it: on with the others.
      const [coming, session] = [this.coming(), this.session()];
      const gone = coming?.closed() ?? session?.closed();
      if (gone && this.line() === 'live') untracked(() => this.toTheOthers());
    });
    const done = this.late.done.subscribe((ids) => this.dialled()?.settled(ids));
    inject(DestroyRef).onDestroy(() => {
      done.unsubscribe();
      this.late.rest();
      this.dialled()?.close();
    });
  }

  /** Another board is open here as well, out of sight. */
  openBehind(board: Id): void {
    this.dialled()?.openBehind(board);
  }

  /** Goes to another board of the lesson, to where this window was on it last. */
  goTo(board: Id): void {
    const line = this.dialled();
    if (line && board !== this.coming()?.id()) this.coming.set(line.open(board));
  }

  /** All are brought to one place; where that is on another board, this window goes there. */
  private bringTo({ board, view }: PlacedView): void {
    const line = this.dialled();
    if (!line || board === this.session()?.id()) return;
    const session = line.open(board);
    session.place.set(view);
    this.coming.set(session);
  }

  private toTheOthers(): void {
    const line = this.dialled();
    if (!line) return;
    const { lessonBoards } = line.features;
    const next = this.ledTo()?.id ?? lessonBoards.shown().at(-1)?.id;
    if (next) this.coming.set(line.open(next));
  }

  /** As what the tutor says that one is by now. What isn't confirmed is kept, and goes out with the new line. */
  private comeInAnew(): void {
    this.dialled()?.close();
    this.dialled.set(null);
    this.coming.set(null);
    this.session.set(null);
    void this.enter();
  }

  /** Goes in, or to the door, or says why not. */
  async enter(): Promise<void> {
    this.problem.set(null);
    try {
      this.info.set(await firstValueFrom(this.lessonsApi.readLesson()));
      const line = this.lines.dial('/live/lesson');
      line.late.subscribe((work) => this.takeLate(work));
      line.features.inStep.gathered.subscribe((placed) => this.bringTo(placed));
      const session = line.open(null);
      this.dialled.set(line);
      this.coming.set(session);
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
    const all = this.lateWork;
    this.lateWork = [];
    const byBoard = new Map<string, LateWork>();
    for (const work of all) {
      const known = byBoard.get(work.board);
      byBoard.set(work.board, known ? { ...known, ops: [...known.ops, ...work.ops] } : work);
    }
    // Out of reach, it stays in this browser and goes when there is a connection.
    for (const { board, person, ops } of byBoard.values())
      await this.late.offer(board, person, ops).catch(() => undefined);
    if (this.ended()) await this.late.offerKept(null);
  }

  private async toDoor(): Promise<void> {
    await this.router.navigateByUrl('/door', { replaceUrl: true });
  }
}
