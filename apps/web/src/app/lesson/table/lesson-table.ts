import type { Author } from '@cuaderno/core/drawing';
import type { View } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Rules } from '@cuaderno/core/permissions';
import { NgTemplateOutlet } from '@angular/common';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  HostListener,
  inject,
  Injector,
  input,
  model,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { TemplateRef } from '@angular/core';
import { Bell } from 'lucide';
import type { PaperSource } from '../../board/drawing/paper-source';
import { PageDialog } from '../../board/pages/page-dialog';
import { PageJump } from '../../board/pages/page-jump';
import { PageStrip } from '../../board/pages/page-strip';
import { Shortcuts } from '../../board/shortcuts/shortcuts';
import { UnreadableNotice } from '../../board/unreadable/unreadable-notice';
import type { PastWriter } from '../../board/work-area/class-marks';
import { WorkArea } from '../../board/work-area/work-area';
import type { Course } from '../../api/shapes';
import { FeatureViews } from '../../live/features/feature-views';
import type { BoardSession } from '../../live/board-session';
import type { PagesChoice } from '../../materials/chooser/chooser-panel';
import { Button } from '../../ui/button/button';
import { FindPanel } from '../../ui/find/find-panel';
import { Icon } from '../../ui/icons/icon';
import { FocusBack } from '../../ui/popup/dialog';
import { TypedAhead } from '../../ui/popup/typed-ahead';
import { matches, SMALL_WINDOW, WIDE_WINDOW } from '../../ui/theme/matches';
import { Tip } from '../../ui/tip/tip';
import { BoardsDialog } from '../boards/boards-dialog';
import type { BoardChoice } from '../boards/boards-dialog';
import { Elsewhere, placesElsewhere, whoIsWhere } from '../boards/elsewhere';
import { NoticeWishes } from '../notice/notice-wishes';
import type { PersonWish } from '../people/people-panel';
import { PensBack } from '../people/pens-back';
import { PermissionsPanel } from '../people/permissions-panel';
import type { MayLevel, MayWord } from '../people/permissions-panel';
import { BesideBoard } from './beside-board';
import { BesideColumn } from './beside-column';
import { LessonAside } from './lesson-aside';
import { LessonBar } from './lesson-bar';
import type { LookingAt } from './looking-at';
import type { PageActions } from './page-actions';

/** A place on another board; without a view, a page of it. */
export interface PlaceElsewhere {
  readonly board: Id;
  readonly page: Id;
  readonly view?: View | null;
}

type CourseOfTable = Pick<Course, 'id' | 'name' | 'linkToken' | 'joinCode'> & {
  readonly rules: Rules;
};

/**
 * The table that a board lies on for who teaches with it: the page with its tools, pictures of all pages, the class and
 * what else stands beside it, and the dialogs that belong to those. What is the tutor's alone, and where another board
 * is opened, say the screens around it.
 */
@Component({
  selector: 'cua-lesson-table',
  imports: [
    BesideColumn,
    BoardsDialog,
    Button,
    Elsewhere,
    FeatureViews,
    FindPanel,
    FocusBack,
    Icon,
    LessonAside,
    LessonBar,
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
  templateUrl: './lesson-table.html',
  styleUrl: './lesson-table.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LessonTable {
  readonly session = input.required<BoardSession>();
  readonly papers = input.required<PaperSource>();
  readonly lookingAt = input.required<LookingAt>();
  readonly pageActions = input.required<PageActions>();
  /** Boards that are open in this window, by their ids. */
  readonly boards = input.required<ReadonlyMap<Id, BoardSession>>();
  /** Whether it is the tutor's, and not that of one who helps. */
  readonly ofTutor = input(true);
  /** Whether the class has the board that is in sight. */
  readonly isShown = input(true);
  /** Of which boards are chosen; `null` while it isn't known. */
  readonly courseId = input<Id | null>(null);
  /** What its tutor knows of the course. */
  readonly course = input<CourseOfTable | null>(null);
  /** Who wrote on the board before. */
  readonly earlier = input<readonly PastWriter[]>([]);
  /** What is told below the page besides what every table tells. */
  readonly notices = input<TemplateRef<unknown> | null>(null);
  /** What stands beside the page besides what every table has there. */
  readonly panels = input<TemplateRef<unknown> | null>(null);
  /** The page in view. */
  readonly page = model<Id | null>(null);
  /** Whether there is only the page in the window, and few tools. */
  readonly pageOnly = model(false);
  /** Whether another board is being chosen. */
  readonly choosing = model(false);
  /** The class is to have the board that is in sight. */
  readonly shown = output();
  /** Another board was chosen. */
  readonly opened = output<BoardChoice>();
  /** This window is to go to a place on another board. */
  readonly left = output<PlaceElsewhere>();
  /** What may be done was said, for whom or where. */
  readonly said = output<MayWord>();

  protected readonly beside = inject(BesideBoard);
  private readonly injector = inject(Injector);
  private readonly typedAhead = inject(TypedAhead);
  private readonly shortcuts = inject(Shortcuts);
  private readonly area = viewChild(WorkArea);
  private readonly aside = viewChild(LessonAside);
  protected readonly icons = { Bell };
  protected readonly isWide = matches(WIDE_WINDOW);
  protected readonly isSmall = matches(SMALL_WINDOW);
  protected readonly wishing = signal(false);
  /** For whom or what it is being said what may be done. */
  protected readonly saying = signal<MayLevel | null>(null);
  protected readonly lesson = computed(() => this.session().lesson());
  /** What of the lesson stands open beside the page. */
  protected readonly shownOfLesson = computed(() => {
    const open = this.beside.open();
    return open === 'people' || open === 'chat' ? open : null;
  });
  protected readonly waiting = computed(() => ({
    door: this.session().features.door.waiting().length,
    hands: this.session()
      .people()
      .filter(({ hand }) => hand !== null).length,
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
  protected readonly whoIsWhere = computed(() => whoIsWhere(this.session(), this.authors()));
  /** Where students are on other boards. */
  protected readonly elsewhere = computed(() =>
    this.lesson() ? placesElsewhere(this.session(), this.boards(), this.authors()) : [],
  );

  constructor() {
    effect(() => this.beside.inLesson.set(this.lesson() !== null));
  }

  goTo(page: Id): void {
    this.area()?.goTo(page);
  }

  /** Lays a file from the materials on the page. */
  lay({ asset, pagesGo }: PagesChoice): void {
    this.area()?.lay(asset, pagesGo);
  }

  /** Every student’s window shows once what this one shows. */
  gather(): void {
    const view = this.area()?.part;
    if (view) this.session().features.inStep.gather(this.session().board().id, view);
  }

  /** Who is at the door comes into sight. */
  toDoor(): void {
    this.pageOnly.set(false);
    this.beside.show('people');
    afterNextRender(() => this.aside()?.toDoor(), { injector: this.injector });
  }

  protected takePens(): void {
    this.session().features.pens.setTrust('all', 'view');
  }

  protected choose(choice: BoardChoice): void {
    this.choosing.set(false);
    this.opened.emit(choice);
  }

  /** All is there again, with what waits. */
  protected showWaiting(): void {
    const { door, hands } = this.waiting();
    if (door > 0) return this.toDoor();
    this.pageOnly.set(false);
    this.beside.show(hands > 0 ? 'people' : 'chat');
  }

  protected wish(wish: PersonWish): void {
    if (wish.kind === 'go') {
      const person = this.session()
        .people()
        .find(({ id }) => id === wish.who);
      if (!person?.page) return;
      const { board, page, view } = person;
      if (board && board !== this.session().id()) this.left.emit({ board, page, view });
      else if (view) this.area()?.show(view);
      else this.goTo(page);
    } else if (wish.kind === 'gather') {
      const view = this.area()?.part;
      const { features, board } = this.session();
      if (view) features.inStep.gatherOne(wish.window, board().id, view);
    } else if (wish.kind === 'wipe') this.area()?.wiping.set({ who: wish.who });
    else if (wish.kind === 'may') this.saying.set(wish.who === 'all' ? 'all' : { who: wish.who });
  }

  @HostListener('document:keydown', ['$event'])
  protected key(event: KeyboardEvent): void {
    if (this.shortcuts.asks(event, 'pens-back')) return this.takePensByKey(event);
    // Finding is for all pages of the board, as the browser's own can't be.
    if (!this.shortcuts.asks(event, 'find')) return;
    event.preventDefault();
    this.beside.show('find');
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
}
