import { pagesInOrder } from '@cuaderno/core/board';
import type { Author } from '@cuaderno/core/drawing';
import type { View } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
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
import { Router, RouterLink } from '@angular/router';
import { NgTemplateOutlet } from '@angular/common';
import { Bell, Clock, DoorOpen, Download, Info, Layers } from 'lucide';
import { ImportsApi } from '../../api/imports-api';
import type { ImportedAnnotations } from '../../api/shapes';
import { hasAnnotations, whatCame } from '../../materials/imported-annotations/format-annotations';
import { SaveDialog } from '../../records/export/save-dialog';
import { Address } from '../../ui/address/address';
import { Button } from '../../ui/button/button';
import { FindPanel } from '../../ui/find/find-panel';
import { Icon } from '../../ui/icons/icon';
import { LateLinesDialog } from '../../records/late-lines/late-lines-dialog';
import { ChooserPanel } from '../../materials/chooser/chooser-panel';
import type { PagesChoice } from '../../materials/chooser/chooser-panel';
import { Tip } from '../../ui/tip/tip';
import { NoticeWishes } from '../notice/notice-wishes';
import { Notices } from '../notice/notices';
import { Shortcuts } from '../../board/shortcuts/shortcuts';
import { PageJump } from '../../board/pages/page-jump';
import { PageDialog } from '../../board/pages/page-dialog';
import { PageStrip } from '../../board/pages/page-strip';
import type { PersonWish } from '../people/people-panel';
import { PensBack } from '../people/pens-back';
import { PermissionsPanel } from '../people/permissions-panel';
import type { MayLevel } from '../people/permissions-panel';
import { WhoseInk } from '../../board/whose-ink/whose-ink';
import { FocusBack } from '../../ui/popup/dialog';
import { matches, SMALL_WINDOW, WIDE_WINDOW } from '../../ui/theme/matches';
import { TypedAhead } from '../../ui/popup/typed-ahead';
import { PrivateNotesPanel } from '../../board/private-notes/private-notes-panel';
import { LocalFiles } from '../../board/drawing/local-files';
import { PaperSource } from '../../board/drawing/paper-source';
import { WindowTitle } from '../../ui/title/window-title';
import { LessonClock } from '../../ui/time/lesson-clock';
import { Reminder } from '../reminder/reminder';
import { UnreadableNotice } from '../../board/unreadable/unreadable-notice';
import { WaitingLink } from '../waiting/waiting-link';
import { WorkArea } from '../../board/work-area/work-area';
import { BoardsDialog } from '../boards/boards-dialog';
import type { BoardChoice } from '../boards/boards-dialog';
import { Elsewhere, placesElsewhere, whoIsWhere } from '../boards/elsewhere';
import { BesideBoard } from './beside-board';
import { BesideColumn } from './beside-column';
import { BoardName } from './board-name';
import { LeaveDialog } from './leave-dialog';
import { LessonAside } from './lesson-aside';
import { LessonBar } from './lesson-bar';
import { LookingAt } from './looking-at';
import { MoveDialog } from './move-dialog';
import { OpenBoard } from './open-board';
import { PageActions } from './page-actions';
import { inShort, ReportDialog } from './report-dialog';
import { SlideReport } from './slide-report';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** A place on another board; without a view, a page of it. */
interface PlaceElsewhere {
  readonly board: Id;
  readonly page: Id;
  readonly view?: View | null;
}

/** A board as its tutor has it, between lessons and in them. */
@Component({
  selector: 'cua-board',
  imports: [
    BesideColumn,
    BoardName,
    BoardsDialog,
    Button,
    ChooserPanel,
    Elsewhere,
    FindPanel,
    FocusBack,
    Icon,
    LateLinesDialog,
    LeaveDialog,
    LessonAside,
    LessonBar,
    LessonClock,
    MoveDialog,
    NgTemplateOutlet,
    NoticeWishes,
    PageDialog,
    PageJump,
    PageStrip,
    PensBack,
    PermissionsPanel,
    PrivateNotesPanel,
    ProblemMessage,
    Reminder,
    ReportDialog,
    RouterLink,
    SaveDialog,
    Tip,
    UnreadableNotice,
    WaitingLink,
    WhoseInk,
    WorkArea,
  ],
  providers: [BesideBoard, OpenBoard],
  templateUrl: './board.html',
  styleUrl: './board.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardScreen {
  /** From the address. */
  readonly board = input.required<string>();
  /** The page to begin at, where the address names one. */
  readonly at = input<Id | undefined>(undefined, { alias: 'page' });

  protected readonly here = inject(OpenBoard);
  protected readonly beside = inject(BesideBoard);
  private readonly injector = inject(Injector);
  private readonly router = inject(Router);
  private readonly typedAhead = inject(TypedAhead);
  private readonly shortcuts = inject(Shortcuts);
  private readonly area = viewChild(WorkArea);
  private readonly aside = viewChild(LessonAside);
  protected readonly papers = new PaperSource(inject(LocalFiles));
  protected readonly session = this.here.session;
  protected readonly course = this.here.course;
  protected readonly lesson = this.here.lesson;
  protected readonly lookingAt = new LookingAt(this.session);
  protected readonly page = signal<Id | null>(null);
  protected readonly leaving = signal(false);
  /** Whether there is only the page in the window, and few tools. */
  protected readonly pageOnly = signal(false);
  protected readonly notices = inject(Notices);
  protected readonly pageActions = new PageActions({
    session: () => this.session(),
    page: () => this.page(),
    goTo: (page) => this.area()?.goTo(page),
  });
  protected readonly icons = {
    Bell,
    Clock,
    DoorOpen,
    Download,
    Info,
    Layers,
  };
  protected readonly slides = new SlideReport(inject(ImportsApi), () => this.board());
  protected readonly inShort = inShort;
  /** Annotations of the PDF just brought that can be written on now, until the tutor has read it. */
  protected readonly whatCame = whatCame;
  protected readonly annotations = signal<ImportedAnnotations | null>(null);
  protected readonly saving = signal(false);
  /** For whom or what it is being said what may be done. */
  protected readonly saying = signal<MayLevel | null>(null);

  protected readonly lookingAtLate = signal(false);
  protected readonly wishing = signal(false);
  /** Whether there is room above the page for what is below it elsewhere. */
  protected readonly isWide = matches(WIDE_WINDOW);
  protected readonly isSmall = matches(SMALL_WINDOW);
  /** What of the lesson stands open beside the page. */
  protected readonly shownOfLesson = computed(() => {
    const open = this.beside.open();
    return open === 'people' || open === 'chat' ? open : null;
  });
  protected readonly waiting = computed(() => ({
    door: this.here.knocking(),
    hands: (this.session()?.people() ?? []).filter(({ hand }) => hand !== null).length,
    messages: this.aside()?.unread() ?? 0,
  }));

  /** What waits where there is only the page, in words; `null` for nothing. */
  protected readonly waits = computed(() => {
    const { door, hands, messages } = this.waiting();
    const words = [
      door > 0 && `${door} at the door`,
      hands > 0 && `${hands} ${hands === 1 ? 'hand' : 'hands'} up`,
      messages > 0 && `${messages} unread`,
    ];
    return words.filter(Boolean).join(' · ') || null;
  });

  protected readonly authors = computed<ReadonlyMap<Id, Author>>(
    () => this.area()?.marks.authors() ?? new Map<Id, Author>(),
  );
  /** Who is on which page just now. */
  protected readonly whoIsWhere = computed(() => {
    const session = this.session();
    return session ? whoIsWhere(session, this.authors()) : new Map<Id, Author[]>();
  });
  /** Where students are on other boards. */
  protected readonly elsewhere = computed(() => {
    const session = this.session();
    return session?.lesson() ? placesElsewhere(session, this.here.boards(), this.authors()) : [];
  });
  /** Another board is being chosen. */
  protected readonly choosing = signal(false);

  constructor() {
    const title = inject(WindowTitle);
    effect(() => title.name(this.here.title() || 'Board'));
    // A reload comes back to the page that was in view.
    const address = inject(Address);
    effect(() => {
      const page = this.page();
      // Not with each line that is written.
      const isThere = untracked(() =>
        this.session()
          ?.board()
          .pages.has(page ?? ''),
      );
      if (isThere) address.set('page', page);
    });
    effect(() => {
      // A student leads, and has gone to another board: who follows goes along.
      const session = this.session();
      const { inStep, pens } = session?.features ?? {};
      if (!session || !inStep?.on() || !pens?.lead() || this.lookingAt.around()) return;
      const led = inStep.led();
      if (led && led.board !== session.id())
        untracked(() => void this.router.navigate(['/boards', led.board]));
    });
    effect(() => this.beside.inLesson.set(this.lesson() !== null));
    effect(() => {
      const board = this.board();
      untracked(() => {
        this.here.open(board, this.at());
        const came = (history.state ?? {}) as {
          import?: string;
          annotations?: ImportedAnnotations;
        };
        void this.slides.load(came.import ?? null);
        this.annotations.set(hasAnnotations(came.annotations) ? came.annotations : null);
      });
    });
    inject(DestroyRef).onDestroy(() => {
      this.slides.close();
      this.papers.close();
    });
  }

  protected goTo(page: Id): void {
    this.area()?.goTo(page);
  }

  protected gather(): void {
    const [session, view] = [this.session(), this.area()?.part];
    if (session && view) session.features.inStep.gather(session.board().id, view);
  }

  /** Another board is opened in place of this one, and the class goes along if wished. */
  protected async openBoard({ board, shows }: BoardChoice): Promise<void> {
    this.choosing.set(false);
    if (shows) this.here.show(board);
    await this.router.navigate(['/boards', board]);
  }

  /** Goes to a page of another board. */
  protected async goElsewhere({ board, page, view }: PlaceElsewhere): Promise<void> {
    const there = this.here.boards().get(board);
    there?.place.set(view ?? null);
    there?.startPage.set(page);
    await this.router.navigate(['/boards', board]);
  }

  protected lay({ asset, pagesGo }: PagesChoice): void {
    this.area()?.lay(asset, pagesGo);
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

  /** Taking all pens in is never further than two keys. */
  private takePensByKey(event: KeyboardEvent): void {
    // In a dialog beside the page, too; but not where a capital P is typed.
    const field = (event.target as Element | null)?.closest(
      'input, textarea, select, [contenteditable]',
    );
    // What is typed ahead into a dialog that is just coming isn't meant for the class.
    if (!this.lesson() || field || this.typedAhead.isOpening()) return;
    event.preventDefault();
    this.takePens();
  }

  protected takePens(): void {
    this.session()?.features.pens.setTrust('all', 'view');
  }

  @HostListener('document:keydown', ['$event'])
  protected key(event: KeyboardEvent): void {
    if (this.shortcuts.asks(event, 'pens-back')) return this.takePensByKey(event);
    // Finding is for all pages of the board, as the browser's own can't be.
    if (!this.shortcuts.asks(event, 'find') || !this.session()?.ready()) return;
    event.preventDefault();
    this.beside.show('find');
  }

  protected async openLesson(): Promise<void> {
    // A touch is needed to ask: from now on somebody may be at the door.
    void this.notices.ask();
    await this.here.openLesson();
  }

  protected async closeLesson(): Promise<void> {
    const closed = await this.here.closeLesson();
    if (closed) await this.router.navigate(['/records', closed]);
    this.leaving.set(false);
  }

  /** All is there again, with what waits. */
  protected showWaiting(): void {
    const { door, hands } = this.waiting();
    this.pageOnly.set(false);
    if (door > 0) this.toDoor();
    else this.beside.show(hands > 0 ? 'people' : 'chat');
  }

  protected toDoor(): void {
    this.beside.show('people');
    afterNextRender(() => this.aside()?.toDoor(), { injector: this.injector });
  }

  protected wish(wish: PersonWish): void {
    if (wish.kind === 'go') {
      const person = this.session()
        ?.people()
        .find(({ id }) => id === wish.who);
      if (!person?.page) return;
      const { board, page, view } = person;
      if (board && board !== this.session()?.id()) void this.goElsewhere({ board, page, view });
      else if (view) this.area()?.show(view);
      else this.goTo(page);
    } else if (wish.kind === 'gather') {
      const [session, view] = [this.session(), this.area()?.part];
      if (session && view) session.features.inStep.gatherOne(wish.window, session.board().id, view);
    } else if (wish.kind === 'wipe') this.area()?.wiping.set({ who: wish.who });
    else if (wish.kind === 'may') this.saying.set(wish.who === 'all' ? 'all' : { who: wish.who });
  }

  protected nearEnd(minutes: number): void {
    this.notices.tell('end', `${minutes} minutes until the planned end`);
  }

  /** The lesson stays open behind the tutor. */
  protected async stepOut(): Promise<void> {
    this.leaving.set(false);
    await this.router.navigate(this.course() ? ['/courses', this.course()!.id] : ['/']);
  }
}
