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
import { Router, RouterLink } from '@angular/router';
import {
  addPageBeside,
  copyPage,
  dressPage,
  movePage,
  pagesInOrder,
  removePage,
} from '@cuaderno/core';
import type { Id, Page, PageEdit } from '@cuaderno/core';
import { ButtonModule } from 'primeng/button';
import { DialogModule } from 'primeng/dialog';
import { Api, troubleOf } from '../../api/api';
import type { Trouble } from '../../api/api';
import type { BoardInfo, Course } from '../../api/shapes';
import { BoardSession } from '../../live/board-session';
import { PageSheet } from '../../pages/page-sheet';
import type { PageDress } from '../../pages/page-sheet';
import { PageStrip } from '../../pages/page-strip';
import type { PageWish } from '../../pages/page-strip';
import { PeoplePanel } from '../../people/people-panel';
import { LocalFiles } from '../../stage/local-files';
import { PaperSource } from '../../stage/paper-source';
import { sayLength } from '../../time/say-time';
import { WorkArea } from '../../work/work-area';
import { JoinCard } from '../course/join-card';

type CourseOfBoard = Pick<Course, 'id' | 'name' | 'linkToken' | 'joinCode' | 'lesson'>;

/** A board as its tutor has it, between lessons and in them. */
@Component({
  selector: 'cua-board',
  imports: [
    ButtonModule,
    DialogModule,
    JoinCard,
    PageSheet,
    PageStrip,
    PeoplePanel,
    RouterLink,
    WorkArea,
  ],
  templateUrl: './board.html',
  styleUrl: './board.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardScreen {
  /** From the address. */
  readonly board = input.required<string>();

  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly area = viewChild(WorkArea);
  protected readonly papers = new PaperSource(inject(LocalFiles));
  protected readonly session = signal<BoardSession | null>(null);
  protected readonly info = signal<BoardInfo | null>(null);
  protected readonly course = signal<CourseOfBoard | null>(null);
  protected readonly page = signal<Id | null>(null);
  protected readonly trouble = signal<Trouble | null>(null);
  protected readonly closing = signal(false);
  protected readonly busy = signal(false);
  /** The page whose name and paper are being chosen. */
  protected readonly dressing = signal<Page | null>(null);
  /** The page that was taken out last, until that is read. */
  protected readonly removed = signal<{ page: Id; number: number } | null>(null);
  private readonly now = signal(Date.now());

  /** It may have come back by undo; then there is nothing to say. */
  protected readonly gone = computed(() => {
    const last = this.removed();
    return last && this.session()?.board().pages.get(last.page)?.removed ? last : null;
  });
  protected readonly title = computed(
    () => this.session()?.board().title || this.info()?.title || '',
  );
  protected readonly lesson = computed(() => this.session()?.lesson() ?? null);
  protected readonly elapsed = computed(() =>
    sayLength(Math.max(0, this.now() - (this.lesson()?.openedAt ?? this.now()))),
  );
  protected readonly numbers = computed(() => {
    const board = this.session()?.board();
    return new Map(board ? pagesInOrder(board).map(({ id }, i) => [id, i + 1]) : []);
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
      });
    });
    const clock = setInterval(() => this.now.set(Date.now()), 10_000);
    inject(DestroyRef).onDestroy(() => {
      clearInterval(clock);
      this.session()?.close();
      this.papers.close();
    });
  }

  protected async load(): Promise<void> {
    this.trouble.set(null);
    try {
      const { board, course } = await this.api.get<{ board: BoardInfo; course: CourseOfBoard }>(
        `/boards/${this.board()}`,
      );
      this.info.set(board);
      this.course.set(course);
    } catch (error) {
      this.trouble.set(troubleOf(error));
    }
  }

  protected goTo(page: Id): void {
    this.area()?.goTo(page);
  }

  protected edit(wish: PageWish): void {
    const board = this.session()?.board();
    const page = this.page();
    if (!board) return;
    if (wish === 'add') return this.make(addPageBeside(board, page, 'after'));
    if (!page) return;
    if (wish === 'copy') return this.make(copyPage(board, page));
    if (wish === 'dress') return this.dressing.set(board.pages.get(page) ?? null);
    const number = this.numbers().get(page) ?? 0;
    const edit = removePage(board, page);
    this.make(edit);
    if (edit) this.removed.set({ page, number });
  }

  protected move(page: Id, to: number): void {
    const board = this.session()?.board();
    if (board) this.make(movePage(board, page, to));
  }

  protected dress(page: Id, to: PageDress): void {
    const board = this.session()?.board();
    this.dressing.set(null);
    if (board) this.make(dressPage(board, page, to));
  }

  protected bringBack(): void {
    const { page } = this.removed()!;
    this.make({ changes: [{ kind: 'pages.restore', pages: [page] }], show: page });
  }

  /** Makes all changes of one edit, which are one step to undo. */
  private make(edit: PageEdit | null): void {
    this.removed.set(null);
    if (!edit) return;
    this.session()?.doAll(edit.changes);
    this.area()?.goTo(edit.show);
  }

  protected async open(): Promise<void> {
    await this.try(async () => {
      await this.api.post(`/boards/${this.board()}/lesson`);
      this.now.set(Date.now());
    });
  }

  protected async close(): Promise<void> {
    const lesson = this.lesson();
    if (!lesson) return;
    await this.try(async () => {
      await this.api.post(`/lessons/${lesson.id}/close`);
      await this.router.navigate(['/records', lesson.id]);
    });
    this.closing.set(false);
  }

  private async try(what: () => Promise<void>): Promise<void> {
    this.busy.set(true);
    this.trouble.set(null);
    try {
      await what();
    } catch (error) {
      this.trouble.set(troubleOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
