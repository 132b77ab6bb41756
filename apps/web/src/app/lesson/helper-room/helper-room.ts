import type { Author } from '@cuaderno/core/drawing';
import type { View } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { NgTemplateOutlet } from '@angular/common';
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
import { Bell, DoorOpen, Layers } from 'lucide';
import { LocalFiles } from '../../board/drawing/local-files';
import { PaperSource } from '../../board/drawing/paper-source';
import { PageDialog } from '../../board/pages/page-dialog';
import { PageJump } from '../../board/pages/page-jump';
import { PageStrip } from '../../board/pages/page-strip';
import { Shortcuts } from '../../board/shortcuts/shortcuts';
import { UnreadableNotice } from '../../board/unreadable/unreadable-notice';
import { WorkArea } from '../../board/work-area/work-area';
import type { BoardSession } from '../../live/board-session';
import { Button } from '../../ui/button/button';
import { FindPanel } from '../../ui/find/find-panel';
import { Icon } from '../../ui/icons/icon';
import { FocusBack } from '../../ui/popup/dialog';
import { TypedAhead } from '../../ui/popup/typed-ahead';
import { matches, SMALL_WINDOW, WIDE_WINDOW } from '../../ui/theme/matches';
import { usePrimeTheme } from '../../ui/theme/prime-theme';
import { LessonClock } from '../../ui/time/lesson-clock';
import { Tip } from '../../ui/tip/tip';
import { BesideBoard } from '../board-screen/beside-board';
import { BesideColumn } from '../board-screen/beside-column';
import { BoardName } from '../board-screen/board-name';
import { LessonAside } from '../board-screen/lesson-aside';
import { LessonBar } from '../board-screen/lesson-bar';
import { LookingAt } from '../board-screen/looking-at';
import { PageActions } from '../board-screen/page-actions';
import { BoardsDialog } from '../boards/boards-dialog';
import type { BoardChoice } from '../boards/boards-dialog';
import { boardsElsewhere, Elsewhere, placesElsewhere, whoIsWhere } from '../boards/elsewhere';
import { NoticeWishes } from '../notice/notice-wishes';
import type { PersonWish } from '../people/people-panel';
import { PensBack } from '../people/pens-back';
import { PermissionsPanel } from '../people/permissions-panel';
import type { MayLevel, MayWord } from '../people/permissions-panel';
import { sayPermissions } from '../people/say-permissions';
import { OpenLesson } from '../open-lesson/open-lesson';

/** A place on another board; without a view, a page of it. */
interface PlaceElsewhere {
  readonly board: Id;
  readonly page: Id;
  readonly view?: View | null;
}

/**
 * The lesson as one who helps has it: all that its tutor has during a lesson, but what closes it, shares it or removes
 * something, and what is the tutor's own beside it, as private notes to write, materials and records.
 */
@Component({
  selector: 'cua-helper-room',
  imports: [
    BesideColumn,
    BoardName,
    BoardsDialog,
    Button,
    Elsewhere,
    FindPanel,
    FocusBack,
    Icon,
    LessonAside,
    LessonBar,
    LessonClock,
    NgTemplateOutlet,
    NoticeWishes,
    PageDialog,
    PageJump,
    PageStrip,
    PensBack,
    PermissionsPanel,
    Tip,
    UnreadableNotice,
    WorkArea,
  ],
  providers: [BesideBoard],
  templateUrl: './helper-room.html',
  styleUrl: './helper-room.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HelperRoom {
  readonly session = input.required<BoardSession>();

  protected readonly here = inject(OpenLesson);
  protected readonly beside = inject(BesideBoard);
  private readonly injector = inject(Injector);
  private readonly typedAhead = inject(TypedAhead);
  private readonly shortcuts = inject(Shortcuts);
  private readonly area = viewChild(WorkArea);
  private readonly aside = viewChild(LessonAside);
  protected readonly icons = { Bell, DoorOpen, Layers };
  protected readonly papers = new PaperSource(inject(LocalFiles));
  protected readonly page = signal<Id | null>(null);
  protected readonly pageOnly = signal(false);
  protected readonly lookingAt = new LookingAt(() => this.session());
  protected readonly pageActions = new PageActions({
    session: () => this.session(),
    page: () => this.page(),
    goTo: (page) => this.area()?.goTo(page),
  });
  protected readonly choosing = signal(false);
  protected readonly wishing = signal(false);
  /** For whom or what it is being said what may be done. */
  protected readonly saying = signal<MayLevel | null>(null);
  protected readonly isWide = matches(WIDE_WINDOW);
  protected readonly isSmall = matches(SMALL_WINDOW);
  protected readonly shownOfLesson = computed(() => {
    const open = this.beside.open();
    return open === 'people' || open === 'chat' ? open : null;
  });
  protected readonly knocking = computed(
    () =>
      this.session()
        .features.door.arrivals()
        .filter(({ state }) => state === 'waiting').length,
  );
  protected readonly waiting = computed(() => ({
    door: this.knocking(),
    hands: this.session()
      .people()
      .filter(({ hand }) => hand !== null).length,
    messages: this.aside()?.unread() ?? 0,
  }));
  /** Whether the class has the board that is in sight. */
  protected readonly isShown = computed(() =>
    this.session().features.lessonBoards.isShown(this.session().id() ?? ''),
  );
  protected readonly authors = computed<ReadonlyMap<Id, Author>>(
    () => this.area()?.marks.authors() ?? new Map<Id, Author>(),
  );
  protected readonly whoIsWhere = computed(() => whoIsWhere(this.session(), this.authors()));
  protected readonly elsewhere = computed(() =>
    placesElsewhere(this.session(), this.here.boards(), this.authors()),
  );

  constructor() {
    usePrimeTheme();
    effect(() => {
      // Where students are, this window sees them write.
      const boards = boardsElsewhere(this.session());
      untracked(() => {
        for (const board of boards) this.here.openBehind(board);
      });
    });
    this.beside.inLesson.set(true);
    inject(DestroyRef).onDestroy(() => this.papers.close());
  }

  protected goTo(page: Id): void {
    this.area()?.goTo(page);
  }

  protected rename(title: string): void {
    this.session().do({ kind: 'board.rename', title, former: this.session().board().title });
  }

  protected openBoard({ board, shows }: BoardChoice): void {
    this.choosing.set(false);
    if (shows) this.show(board);
    this.here.goTo(board);
  }

  protected show(board: Id): void {
    this.session().features.lessonBoards.show(board);
  }

  protected goElsewhere({ board, page, view }: PlaceElsewhere): void {
    const there = this.here.boards().get(board);
    there?.place.set(view ?? null);
    there?.startPage.set(page);
    this.here.goTo(board);
  }

  protected gather(): void {
    const view = this.area()?.part;
    if (view) this.session().features.inStep.gather(this.session().board().id, view);
  }

  protected wish(wish: PersonWish): void {
    if (wish.kind === 'go') {
      const person = this.session()
        .people()
        .find(({ id }) => id === wish.who);
      if (!person?.page) return;
      const { board, page, view } = person;
      if (board && board !== this.session().id()) this.goElsewhere({ board, page, view });
      else if (view) this.area()?.show(view);
      else this.goTo(page);
    } else if (wish.kind === 'gather') {
      const view = this.area()?.part;
      const { features, board } = this.session();
      if (view) features.inStep.gatherOne(wish.window, board().id, view);
    } else if (wish.kind === 'wipe') this.area()?.wiping.set({ who: wish.who });
    else if (wish.kind === 'may') this.saying.set(wish.who === 'all' ? 'all' : { who: wish.who });
  }

  protected changePermissions(word: MayWord): void {
    sayPermissions(this.session(), word, this.page());
  }

  protected toDoor(): void {
    this.pageOnly.set(false);
    this.beside.show('people');
    afterNextRender(() => this.aside()?.toDoor(), { injector: this.injector });
  }

  protected takePens(): void {
    this.session().features.pens.setTrust('all', 'view');
  }

  @HostListener('document:keydown', ['$event'])
  protected key(event: KeyboardEvent): void {
    const isField = (event.target as Element | null)?.closest(
      'input, textarea, select, [contenteditable]',
    );
    if (this.shortcuts.asks(event, 'pens-back') && !isField && !this.typedAhead.isOpening()) {
      event.preventDefault();
      return this.takePens();
    }
    if (!this.shortcuts.asks(event, 'find')) return;
    event.preventDefault();
    this.beside.show('find');
  }
}
