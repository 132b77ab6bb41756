import type { Answer } from '@cuaderno/contract/route';
import type { readLesson } from '@cuaderno/contract/routes/lessons';
import { addPageBeside } from '@cuaderno/core/edits';
import { whyTrust } from '@cuaderno/core/permissions';
import type { Id } from '@cuaderno/core/id';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { BookOpen, FileDown, Footprints, MessagesSquare, Presentation, SquarePen } from 'lucide';
import { catchError, EMPTY, firstValueFrom, Subject, switchMap } from 'rxjs';
import { HandoutsApi } from '../../api/handouts-api';
import { LessonsApi } from '../../api/lessons-api';
import { ApiError, problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { isLineThin } from '../../browser/thin-line';
import { HandedFiles } from '../../materials/handing-over/handed-files';
import { HandedList } from '../../materials/handing-over/handed-list';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { wayBack } from '../way-back/way-back';
import { LateOffers } from '../../records/late-lines/late-offers';
import { OwnLateNotice } from '../../records/late-lines/own-late-notice';
import { BoardSession } from '../../live/board-session';
import type { LateWork } from '../../live/board-session';
import { PageTurner } from '../../board/pages/page-turner';
import { ClassStrip } from '../people/class-strip';
import { TRUST_STEPS } from '../people/trust-steps';
import { SidePanel } from '../../ui/popup/side-panel';
import { ReadingRoom } from '../../records/reading/reading-room';
import type { ReadFolder } from '../../records/reading/shapes';
import { PaperSource } from '../../board/drawing/paper-source';
import { pdfJs } from '../../board/drawing/pdf-js';
import { Announcer } from '../talk/announcer';
import { SignalBar } from '../talk/signal-bar';
import { TalkDialog } from '../talk/talk-dialog';
import { LessonClock } from '../../ui/time/lesson-clock';
import { UnreadableNotice } from '../../board/unreadable/unreadable-notice';
import { WorkArea } from '../../board/work-area/work-area';

/** For how long late work is gathered before it is offered, in ms. */
const GATHER = 150;

type StudentLesson = Answer<typeof readLesson>;

/** The lesson as a student has it: the board, the tools, and one line that says who may write. */
@Component({
  selector: 'cua-lesson',
  imports: [
    Announcer,
    Button,
    Tip,
    UnreadableNotice,
    ClassStrip,
    HandedList,
    Icon,
    LessonClock,
    OwnLateNotice,
    PageTurner,
    ReadingRoom,
    RouterLink,
    SidePanel,
    SignalBar,
    TalkDialog,
    WorkArea,
  ],
  templateUrl: './lesson.html',
  styleUrl: './lesson.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LessonScreen {
  private readonly handoutsApi = inject(HandoutsApi);
  private readonly lessonsApi = inject(LessonsApi);
  private readonly router = inject(Router);
  protected readonly icons = {
    BookOpen,
    FileDown,
    Footprints,
    MessagesSquare,
    Presentation,
    SquarePen,
  };
  protected readonly papers = new PaperSource(null, isLineThin);
  protected readonly session = signal<BoardSession | null>(null);
  protected readonly lesson = signal<StudentLesson | null>(null);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly over = signal(false);
  protected readonly wayBack = wayBack;
  /** What the tutor lets this course's students look at. */
  protected readonly folders = signal<readonly ReadFolder[]>([]);
  /** How often that was asked: an answer that was overtaken is old. */
  private readonly rereads = new Subject<void>();
  /** Looking at that, and not at the board. */
  protected readonly looking = linkedSignal({
    source: this.folders,
    computation: (folders, before: { value: boolean } | undefined): boolean =>
      (before?.value ?? false) && folders.length > 0,
  });
  protected readonly area = viewChild(WorkArea);
  protected readonly page = signal<Id | null>(null);
  protected readonly talking = signal(false);
  protected readonly handed = inject(HandedFiles);
  /** Looking at what one was handed. */
  protected readonly keeping = signal(false);
  private readonly read = signal(0);
  private readonly others = computed(() => {
    const session = this.session();
    return session?.features.talk.chat().filter(({ by }) => by !== session.me()).length ?? 0;
  });
  /** Messages of others that weren't read yet. */
  protected readonly unread = computed(() => Math.max(0, this.others() - this.read()));
  /** What this person may do with a pen on the page in view, and why it is no more. */
  protected readonly pen = computed(() => {
    const applies = this.session()?.applies()(this.page());
    if (!applies) return null;
    const step = TRUST_STEPS.find(({ trust }) => trust === applies.trust)!;
    const labels = { view: 'Watching', write: 'You have a pen', hands: 'Hands on' };
    const place = applies.why.trust === 'page' || applies.why.trust === 'board';
    return {
      has: applies.trust !== 'view',
      icon: step.icon,
      words: place && applies.trust === 'view' ? 'No writing on this page' : labels[applies.trust],
      why: whyTrust(applies) ?? 'You may write, and move what lies loose on the page.',
    };
  });
  protected readonly abilities = computed(() => this.session()?.applies()(this.page()) ?? null);
  protected readonly leads = computed(() => {
    const session = this.session();
    return (
      session !== null &&
      session.features.pens.lead() !== null &&
      session.features.pens.lead() === session.me()
    );
  });
  /** Whom one follows in step. */
  protected readonly leader = computed(() => {
    const session = this.session();
    const lead = session?.people().find(({ id }) => id === session.features.pens.lead());
    return lead?.name ?? 'your tutor';
  });
  protected readonly line = computed(() => this.session()?.line() ?? 'joining');
  protected readonly ended = computed(() => this.over() || this.line() === 'over');

  /** What was done here, now or on an earlier visit, and has not arrived. */
  protected readonly say = { unsent: formatUnsent };
  protected readonly unsent = computed(() =>
    Math.max(this.session()?.unconfirmed() ?? 0, this.late.stuck()),
  );
  protected readonly late = inject(LateOffers);
  /** Late work by its person, until it is offered together. */
  private lateWork: LateWork[] = [];

  constructor() {
    void this.late.prepare();
    // Over a thin line the page comes as a picture first, and nothing is in its way.
    if (!isLineThin()) void pdfJs();
    void this.enter();
    effect(() => {
      // Also when the line is back: what was said meanwhile was missed.
      const session = this.session();
      if (session?.line() !== 'live') return;
      session.features.invalidation.materials();
      untracked(() => this.readFolders());
    });
    effect(() => {
      const others = this.others();
      if (this.talking() || others < untracked(this.read)) this.read.set(others);
    });
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
      const session = this.session();
      if (session?.line() !== 'live') return;
      session.features.invalidation.handed();
      untracked(() => void this.handed.load());
    });
    effect(() => {
      if (this.session()?.features.invalidation.late()) untracked(() => void this.late.load());
    });
    effect(() => {
      if (this.over()) untracked(() => void this.late.offerKept(null));
    });
    this.rereads
      .pipe(
        // Out of reach, what is known stays: nothing that was taken back can be seen by that.
        switchMap(() => this.handoutsApi.listHandouts().pipe(catchError(() => EMPTY))),
        takeUntilDestroyed(),
      )
      .subscribe((folders) => this.folders.set(folders));
    const done = this.late.done.subscribe((ids) => this.session()?.settled(ids));
    inject(DestroyRef).onDestroy(() => {
      done.unsubscribe();
      this.late.rest();
      this.session()?.close();
      this.papers.close();
    });
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

  protected async enter(): Promise<void> {
    this.problem.set(null);
    try {
      this.lesson.set(await firstValueFrom(this.lessonsApi.readLesson()));
      const session = new BoardSession('/live/lesson');
      session.late.subscribe((work) => this.takeLate(work));
      this.session.set(session);
    } catch (error) {
      if (error instanceof ApiError && error.code === 'lesson-over') this.over.set(true);
      else if (error instanceof ApiError && error.code === 'at-the-door') await this.toDoor();
      else this.problem.set(problemOf(error));
    }
  }

  private async toDoor(): Promise<void> {
    await this.router.navigateByUrl('/door', { replaceUrl: true });
  }

  protected readFolders(): void {
    this.rereads.next();
  }

  protected goTo(page: Id): void {
    this.area()?.goTo(page);
  }

  protected addPage(): void {
    const session = this.session();
    if (!session) return;
    const { changes, show } = addPageBeside(session.board(), this.page(), 'after');
    // Taking pages out is the tutor's.
    for (const change of changes) session.doForGood(change);
    this.goTo(show);
  }

  protected reload(): void {
    location.reload();
  }
}

/** @param isOffered whether it goes to the tutor as soon as there is a connection */
function formatUnsent(changes: number, isOffered: boolean): string {
  const [what, it] = changes === 1 ? ['One change', 'It is'] : [`${changes} changes`, 'They are'];
  const next = isOffered
    ? ', and will go to your tutor as soon as there is a connection, now or next time. All else is kept.'
    : '. All else is kept. Tell your tutor.';
  return `${what} that you made while the connection was lost did not arrive before it ended. ${it} kept in this browser${next}`;
}
