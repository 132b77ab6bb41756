import type { BoardWriter } from '@cuaderno/contract/board-writer';
import { changePage, nameOf, pagesInOrder } from '@cuaderno/core';
import type { Author, Id } from '@cuaderno/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  HostListener,
  inject,
  Injector,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { ElementRef } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Clock, DoorOpen, Download, FolderOpen, Info, NotebookText, Pencil, Search } from 'lucide';
import { firstValueFrom } from 'rxjs';
import { ImportsApi } from '../../api/imports-api';
import { AccountsApi } from '../../api/accounts-api';
import { BoardsApi } from '../../api/boards-api';
import { CoursesApi } from '../../api/courses-api';
import { LessonsApi } from '../../api/lessons-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { BoardInfo, Course, ImportedAnnotations } from '../../api/shapes';
import { hasAnnotations, whatCame } from '../../materials/imported-annotations/format-annotations';
import { lasting, remember } from '../../browser/storage';
import { SaveDialog } from '../../records/export/save-dialog';
import { FindPanel } from '../../ui/find/find-panel';
import { Icon } from '../../ui/icons/icon';
import { LateLinesDialog } from '../../records/late-lines/late-lines-dialog';
import { WaitingLateLines } from '../../records/late-lines/waiting-late-lines';
import { BoardSession } from '../../live/board-session';
import { ChooserPanel } from '../../materials/chooser/chooser-panel';
import type { PagesChoice } from '../../materials/chooser/chooser-panel';
import { MaterialsStore } from '../../materials/store/materials-store';
import { Notices } from '../notice/notices';
import { PageDialog } from '../../board/pages/page-dialog';
import { PageStrip } from '../../board/pages/page-strip';
import type { PersonWish } from '../people/people-panel';
import { PermissionsPanel } from '../people/permissions-panel';
import type { MayLevel, MayWord } from '../people/permissions-panel';
import { WhoseInk } from '../../board/whose-ink/whose-ink';
import { FocusBack } from '../../ui/popup/dialog';
import { TypedAhead } from '../../ui/popup/typed-ahead';
import { PrivateNotesPanel } from '../../board/private-notes/private-notes-panel';
import { LocalFiles } from '../../board/drawing/local-files';
import { PaperSource } from '../../board/drawing/paper-source';
import { LessonClock } from '../../ui/time/lesson-clock';
import { Reminder } from '../reminder/reminder';
import { UnreadableNotice } from '../../board/unreadable/unreadable-notice';
import { WaitingLink } from '../waiting/waiting-link';
import { WorkArea } from '../../board/work-area/work-area';
import { LeaveDialog } from './leave-dialog';
import { LessonAside } from './lesson-aside';
import { LessonBar } from './lesson-bar';
import { MoveDialog } from './move-dialog';
import { PageActions } from './page-actions';
import { inShort, ReportDialog } from './report-dialog';
import { SlideReport } from './slide-report';

const PRIVATE_NOTES_KEY = 'cuaderno.private-notes';

type CourseOfBoard = Pick<Course, 'id' | 'name' | 'linkToken' | 'joinCode' | 'lesson' | 'rules'>;

/** A board as its tutor has it, between lessons and in them. */
@Component({
  selector: 'cua-board',
  imports: [
    UnreadableNotice,
    WhoseInk,
    ChooserPanel,
    FindPanel,
    FocusBack,
    Icon,
    LateLinesDialog,
    LeaveDialog,
    LessonAside,
    LessonBar,
    LessonClock,
    PrivateNotesPanel,
    PermissionsPanel,
    MoveDialog,
    PageDialog,
    PageStrip,
    Reminder,
    ReportDialog,
    RouterLink,
    SaveDialog,
    WaitingLink,
    WorkArea,
  ],
  templateUrl: './board.html',
  styleUrl: './board.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardScreen {
  /** From the address. */
  readonly board = input.required<string>();

  private readonly accountsApi = inject(AccountsApi);
  private readonly boardsApi = inject(BoardsApi);
  private readonly coursesApi = inject(CoursesApi);
  private readonly lessonsApi = inject(LessonsApi);
  private readonly injector = inject(Injector);
  private readonly router = inject(Router);
  private readonly typedAhead = inject(TypedAhead);
  private readonly materials = inject(MaterialsStore);
  private readonly area = viewChild(WorkArea);
  private readonly aside = viewChild(LessonAside);
  protected readonly papers = new PaperSource(inject(LocalFiles));
  protected readonly session = signal<BoardSession | null>(null);
  protected readonly info = signal<BoardInfo | null>(null);
  protected readonly course = signal<CourseOfBoard | null>(null);
  protected readonly page = signal<Id | null>(null);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly leaving = signal(false);
  protected readonly notices = inject(Notices);
  protected readonly busy = signal(false);
  protected readonly pageActions = new PageActions({
    session: () => this.session(),
    page: () => this.page(),
    goTo: (page) => this.area()?.goTo(page),
  });
  protected readonly icons = {
    Clock,
    DoorOpen,
    Download,
    FolderOpen,
    Info,
    NotebookText,
    Pencil,
    Search,
  };
  /** Whether the margin is open beside the page. It stays as it was left, on this machine. */
  protected readonly privateNotes = signal(lasting.getItem(PRIVATE_NOTES_KEY) === 'open');
  /** Whether somebody opened or shut it in this window. */
  protected readonly notesToggled = signal(false);
  protected readonly slides = new SlideReport(inject(ImportsApi), () => this.board());
  protected readonly inShort = inShort;
  /** Annotations of the PDF just brought that can be written on now, until the tutor has read it. */
  protected readonly whatCame = whatCame;
  protected readonly annotations = signal<ImportedAnnotations | null>(null);
  /** What is open beside the board, in the one place there is for it. */
  protected readonly side = signal<'find' | 'materials' | null>(null);
  protected readonly saving = signal(false);
  protected readonly naming = signal(false);
  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('titleField');
  private readonly nameButton = viewChild<ElementRef<HTMLButtonElement>>('nameButton');
  /** How the lesson's board is looked at: by oneself though a student leads, signed, one person's ink alone. */
  protected readonly around = signal(false);
  protected readonly signed = signal(false);
  protected readonly only = signal<Id | null>(null);
  /** Who wrote on it, in whatever lesson, as far as it is known. */
  protected readonly wrote = signal<readonly BoardWriter[]>([]);
  /** All of them, where somebody wrote besides its tutor. */
  protected readonly others = computed(() => {
    const all = this.wrote();
    return all.some(({ role }) => role === 'student')
      ? all.map((one) => ({ id: one.id, label: nameOf(one) }))
      : [];
  });
  /** For whom or what it is being said what may be done. */
  protected readonly saying = signal<MayLevel | null>(null);

  private readonly waitingLate = inject(WaitingLateLines);
  /** Late lines that wait to be looked at and would lie on this board. */
  protected readonly lateHere = computed(() =>
    this.waitingLate.list().filter(({ board }) => board === this.board()),
  );
  protected readonly lateCount = computed(() =>
    this.lateHere().reduce((sum, { count }) => sum + count, 0),
  );
  protected readonly lookingAtLate = signal(false);

  protected readonly title = computed(
    () => this.session()?.board().title || this.info()?.title || '',
  );
  protected readonly lesson = computed(() => this.session()?.lesson() ?? null);
  /** Who is on which page just now. */
  protected readonly whoIsWhere = computed(() => {
    const where = new Map<Id, Author[]>();
    const { authors } = this.area()?.marks ?? {};
    for (const { id, role, here, page } of this.session()?.people() ?? []) {
      const author = authors?.().get(id);
      if (role === 'student' && here && page && author)
        where.set(page, [...(where.get(page) ?? []), author]);
    }
    return where;
  });
  /** A lesson of this course runs on another of its boards. */
  protected readonly elsewhere = computed(() => {
    const lesson = this.course()?.lesson;
    return lesson && lesson.board !== this.board() && !this.lesson() ? lesson : null;
  });

  constructor() {
    effect(() => {
      const board = this.board();
      untracked(() => {
        this.session()?.close();
        this.session.set(new BoardSession(`/live/boards/${board}`));
        void this.load();
        const came = (history.state ?? {}) as {
          import?: string;
          annotations?: ImportedAnnotations;
        };
        void this.slides.load(came.import ?? null);
        this.annotations.set(hasAnnotations(came.annotations) ? came.annotations : null);
      });
    });
    effect(() => {
      // The line was ended since nobody is signed in: whoever signs in again goes on with what is here.
      const session = this.session();
      if (session?.line() !== 'not-in') return;
      void firstValueFrom(this.accountsApi.readAccount()).then(
        () => session.comeBack(),
        () => undefined,
      );
    });
    effect(() => {
      // Another lesson begins as boards are looked at: everyone's ink, and one's own way.
      if (this.session()?.lesson()) return;
      this.around.set(false);
      this.signed.set(false);
      this.only.set(null);
    });
    effect(() => {
      const [board, ready, lesson] = [this.board(), this.session()?.ready(), this.lesson()?.id];
      // What was written in a lesson is known when it is over.
      if (ready) untracked(() => void this.loadWriters(board, lesson));
    });
    effect(() => {
      // Also when the line is back: what was said meanwhile was missed.
      const session = this.session();
      if (session?.line() !== 'live') return;
      session.features.invalidation.late();
      untracked(() => void this.waitingLate.load());
    });
    effect(() => {
      const field = this.nameField()?.nativeElement;
      // Selected first: what was typed ahead comes with the focus, in place of the name.
      field?.setSelectionRange(0, field.value.length);
      field?.focus();
    });
    inject(DestroyRef).onDestroy(() => {
      this.slides.close();
      this.session()?.close();
      this.papers.close();
    });
  }

  protected async load(): Promise<void> {
    this.problem.set(null);
    try {
      const { board, course } = await firstValueFrom(this.boardsApi.readBoard(this.board()));
      this.info.set(board);
      this.course.set(course);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  /** Names beside ink: nothing waits for them. */
  private async loadWriters(board: Id, lesson: Id | undefined): Promise<void> {
    try {
      const { writers } = await firstValueFrom(this.boardsApi.listBoardWriters(board));
      if (board === this.board() && lesson === this.lesson()?.id) this.wrote.set(writers);
    } catch {
      // They are asked for again with the next lesson.
    }
  }

  protected goTo(page: Id): void {
    this.area()?.goTo(page);
  }

  protected gather(): void {
    const view = this.area()?.part;
    if (view) this.session()?.features.inStep.gather(view);
  }

  protected lay({ asset, pagesGo }: PagesChoice): void {
    this.area()?.lay(asset, undefined, pagesGo);
  }

  /** The page that a slide has become. */
  protected goToSlide(number: number): void {
    const board = this.session()?.board();
    const page =
      board &&
      pagesInOrder(board).find(({ paper }) => paper.kind === 'pdf' && paper.number === number);
    this.slides.dismiss();
    if (page) this.goTo(page.id);
  }

  /** Whoever named it goes on from its name. */
  protected stopNaming(): void {
    const hadFocus = document.activeElement === this.nameField()?.nativeElement;
    this.naming.set(false);
    if (!hadFocus) return;
    // Unless something else has been opened by then, and has it.
    const focus = (): void => {
      if (document.activeElement === document.body) this.nameButton()?.nativeElement.focus();
    };
    afterNextRender(focus, { injector: this.injector });
  }

  protected rename(title: string): void {
    // Leaving the field after Enter says it twice.
    if (!this.naming()) return;
    this.stopNaming();
    const former = this.title();
    const tidy = title.trim();
    if (tidy !== '' && tidy !== former)
      this.session()?.do({ kind: 'board.rename', title: tidy, former });
  }

  /** Taking all pens in is never further than two keys. */
  @HostListener('document:keydown.shift.p', ['$event'])
  protected takePens(event: Event): void {
    // In a dialog beside the page, too; but not where a capital P is typed.
    const field = (event.target as Element | null)?.closest(
      'input, textarea, select, [contenteditable]',
    );
    // What is typed ahead into a dialog that is just coming isn't meant for the class.
    if (!this.lesson() || field || this.typedAhead.isOpening()) return;
    event.preventDefault();
    this.session()?.features.pens.setTrust('all', 'view');
  }

  /** Finding is for all pages of the board, as the browser's own can't be. */
  @HostListener('document:keydown', ['$event'])
  protected key(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'f') return;
    if (!this.session()?.ready()) return;
    event.preventDefault();
    this.side.set('find');
  }

  protected toggle(side: 'find' | 'materials'): void {
    this.side.update((open) => (open === side ? null : side));
  }

  /** What was brought to the board lies among materials, too. */
  protected inserted(): void {
    if (this.side() === 'materials') void this.materials.load();
  }

  protected toggleNotes(): void {
    this.notesToggled.set(true);
    this.privateNotes.update((open) => !open);
    remember(lasting, PRIVATE_NOTES_KEY, this.privateNotes() ? 'open' : 'shut');
  }

  protected async open(): Promise<void> {
    await this.try(async () => {
      // A touch is needed to ask: from now on somebody may be at the door.
      void this.notices.ask();
      await firstValueFrom(this.lessonsApi.openLesson(this.board()));
    });
  }

  protected async close(): Promise<void> {
    const lesson = this.lesson();
    if (!lesson) return;
    await this.try(async () => {
      await firstValueFrom(this.lessonsApi.closeLesson(lesson.id));
      await this.router.navigate(['/records', lesson.id]);
    });
    this.leaving.set(false);
  }

  protected toDoor(): void {
    this.aside()?.toDoor();
  }

  protected wish(wish: PersonWish): void {
    if (wish.kind === 'go') {
      const person = this.session()
        ?.people()
        .find(({ id }) => id === wish.who);
      if (person?.view) this.area()?.show(person.view);
      else if (person?.page) this.goTo(person.page);
    } else if (wish.kind === 'gather') {
      const view = this.area()?.part;
      if (view) this.session()?.features.inStep.gatherOne(wish.window, view);
    } else if (wish.kind === 'wipe') this.area()?.wiping.set({ who: wish.who });
    else if (wish.kind === 'may') this.saying.set(wish.who === 'all' ? 'all' : { who: wish.who });
  }

  /** Says what may be done, where it is said. */
  protected changePermissions(word: MayWord): void {
    const session = this.session();
    if (!session) return;
    switch (word.kind) {
      case 'trust':
        return session.features.pens.setTrust(word.who, word.trust);
      case 'rules':
        return session.features.pens.setRules(word.who, word.over);
      case 'board':
        return session.do({ kind: 'board.rules', to: word.rules, from: session.board().rules });
      case 'page': {
        const change = changePage(session.board(), this.page() ?? '', { rules: word.rules });
        if (change) session.do(change);
        return;
      }
      case 'course':
        void this.try(async () => {
          const course = this.course();
          if (!course) return;
          await firstValueFrom(this.coursesApi.setCourseRules(course.id, word.rules));
          this.course.set({ ...course, rules: word.rules });
        });
    }
  }

  protected nearEnd(minutes: number): void {
    this.notices.tell('end', `${minutes} minutes until the planned end`);
  }

  /** The lesson stays open behind the tutor. */
  protected async stepOut(): Promise<void> {
    this.leaving.set(false);
    await this.router.navigate(this.course() ? ['/courses', this.course()!.id] : ['/']);
  }

  /** How many are at the door and wait for an answer. */
  protected readonly knocking = computed(
    () =>
      this.session()
        ?.features.door.arrivals()
        .filter(({ state }) => state === 'waiting').length ?? 0,
  );

  private async try(what: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.problem.set(null);
    try {
      await what();
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
