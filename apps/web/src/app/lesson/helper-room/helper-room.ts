import type { Id } from '@cuaderno/core/id';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { DoorOpen, Layers } from 'lucide';
import { LocalFiles } from '../../board/drawing/local-files';
import { PaperSource } from '../../board/drawing/paper-source';
import type { BoardSession } from '../../live/board-session';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { matches, WIDE_WINDOW } from '../../ui/theme/matches';
import { usePrimeTheme } from '../../ui/theme/prime-theme';
import { LessonClock } from '../../ui/time/lesson-clock';
import { Tip } from '../../ui/tip/tip';
import type { BoardChoice } from '../boards/boards-dialog';
import { boardsElsewhere } from '../boards/elsewhere';
import { OpenLesson } from '../open-lesson/open-lesson';
import type { MayWord } from '../people/permissions-panel';
import { sayPermissions } from '../people/say-permissions';
import { BesideBoard } from '../table/beside-board';
import { BoardName } from '../table/board-name';
import { LessonBar } from '../table/lesson-bar';
import { LessonTable } from '../table/lesson-table';
import type { PlaceElsewhere } from '../table/lesson-table';
import { LookingAt } from '../table/looking-at';
import { PageActions } from '../table/page-actions';

/**
 * The lesson as one who helps has it: all that its tutor has during a lesson, but what closes it, shares it or removes
 * something, and what is the tutor's own beside it, as private notes to write, materials and records.
 */
@Component({
  selector: 'cua-helper-room',
  imports: [BoardName, Button, Icon, LessonBar, LessonClock, LessonTable, Tip],
  providers: [BesideBoard],
  templateUrl: './helper-room.html',
  styleUrl: './helper-room.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HelperRoom {
  readonly session = input.required<BoardSession>();

  protected readonly here = inject(OpenLesson);
  protected readonly table = viewChild(LessonTable);
  protected readonly icons = { DoorOpen, Layers };
  protected readonly papers = new PaperSource(inject(LocalFiles));
  protected readonly page = signal<Id | null>(null);
  protected readonly pageOnly = signal(false);
  protected readonly lookingAt = new LookingAt(() => this.session());
  protected readonly pageActions = new PageActions({
    session: () => this.session(),
    page: () => this.page(),
    goTo: (page) => this.table()?.goTo(page),
  });
  protected readonly choosing = signal(false);
  protected readonly isWide = matches(WIDE_WINDOW);
  protected readonly knocking = computed(() => this.session().features.door.waiting().length);
  /** Whether the class has the board that is in sight. */
  protected readonly isShown = computed(() =>
    this.session().features.lessonBoards.isShown(this.session().id() ?? ''),
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
    inject(DestroyRef).onDestroy(() => this.papers.close());
  }

  protected rename(title: string): void {
    this.session().do({ kind: 'board.rename', title, former: this.session().board().title });
  }

  protected openBoard({ board, shows }: BoardChoice): void {
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

  protected changePermissions(word: MayWord): void {
    sayPermissions(this.session(), word, this.page());
  }
}
