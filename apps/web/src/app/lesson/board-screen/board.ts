import { pagesInOrder } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Bell, Clock, DoorOpen, Download, Info, Layers } from 'lucide';
import { ImportsApi } from '../../api/imports-api';
import type { ImportedAnnotations } from '../../api/shapes';
import { hasAnnotations, whatCame } from '../../materials/imported-annotations/format-annotations';
import { SaveDialog } from '../../records/export/save-dialog';
import { Address } from '../../ui/address/address';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { LateLinesDialog } from '../../records/late-lines/late-lines-dialog';
import { ChooserPanel } from '../../materials/chooser/chooser-panel';
import { Tip } from '../../ui/tip/tip';
import { Notices } from '../notice/notices';
import { WhoseInk } from '../../board/whose-ink/whose-ink';
import { FocusBack } from '../../ui/popup/dialog';
import { matches, WIDE_WINDOW } from '../../ui/theme/matches';
import { PrivateNotesPanel } from '../../board/private-notes/private-notes-panel';
import { LocalFiles } from '../../board/drawing/local-files';
import { PaperSource } from '../../board/drawing/paper-source';
import { WindowTitle } from '../../ui/title/window-title';
import { LessonClock } from '../../ui/time/lesson-clock';
import { Reminder } from '../reminder/reminder';
import { WaitingLink } from '../waiting/waiting-link';
import type { BoardChoice } from '../boards/boards-dialog';
import { LeaveDialog } from './leave-dialog';
import { MoveDialog } from './move-dialog';
import { BesideBoard } from '../table/beside-board';
import { BoardName } from '../table/board-name';
import { LessonBar } from '../table/lesson-bar';
import { LessonTable } from '../table/lesson-table';
import type { PlaceElsewhere } from '../table/lesson-table';
import { LookingAt } from '../table/looking-at';
import { PageActions } from '../table/page-actions';
import { OpenBoard } from './open-board';
import { inShort, ReportDialog } from './report-dialog';
import { SlideReport } from './slide-report';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** A board as its tutor has it, between lessons and in them. */
@Component({
  selector: 'cua-board',
  imports: [
    BoardName,
    Button,
    ChooserPanel,
    FocusBack,
    Icon,
    LateLinesDialog,
    LeaveDialog,
    LessonBar,
    LessonClock,
    LessonTable,
    MoveDialog,
    PrivateNotesPanel,
    ProblemMessage,
    Reminder,
    ReportDialog,
    RouterLink,
    SaveDialog,
    Tip,
    WaitingLink,
    WhoseInk,
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
  private readonly router = inject(Router);
  protected readonly table = viewChild(LessonTable);
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
    goTo: (page) => this.table()?.goTo(page),
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
  protected readonly lookingAtLate = signal(false);
  /** Whether there is room above the page for what is below it elsewhere. */
  protected readonly isWide = matches(WIDE_WINDOW);
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

  /** Another board is opened in place of this one, and the class goes along if wished. */
  protected async openBoard({ board, shows }: BoardChoice): Promise<void> {
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

  /** The page that a slide has become. */
  protected goToSlide(number: number): void {
    const board = this.session()?.board();
    const page =
      board &&
      pagesInOrder(board).find(({ paper }) => paper.kind === 'pdf' && paper.number === number);
    this.slides.dismiss();
    if (page) this.table()?.goTo(page.id);
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

  protected nearEnd(minutes: number): void {
    this.notices.tell('end', `${minutes} minutes until the planned end`);
  }

  /** The lesson stays open behind the tutor. */
  protected async stepOut(): Promise<void> {
    this.leaving.set(false);
    await this.router.navigate(this.course() ? ['/courses', this.course()!.id] : ['/']);
  }
}
