import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { LessonBoard } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { CheckboxModule } from 'primeng/checkbox';
import { firstValueFrom } from 'rxjs';
import { Attempt } from '../../api/attempt';
import { BoardsApi } from '../../api/boards-api';
import { CoursesApi } from '../../api/courses-api';
import { LessonsApi } from '../../api/lessons-api';
import type { BoardInfo, Course } from '../../api/shapes';
import type { PaperSource } from '../../board/drawing/paper-source';
import { BoardCover } from '../../board/pages/board-cover';
import { Button } from '../../ui/button/button';
import { EmptyState } from '../../ui/empty/empty-state';
import { LIST } from '../../ui/list/list';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { formatDay } from '../../ui/time/format-time';

/** From so many boards on they can be looked for by their names. */
const MANY = 12;

/** A board that is to be opened. */
export interface BoardChoice {
  readonly board: Id;
  /** Whether the class is to have it as well. */
  readonly shows: boolean;
}

/**
 * The boards of a course by their pictures, to open one in place of that which is in sight: one touch, in a lesson as
 * well. One of another course is copied into this one first.
 */
@Component({
  selector: 'cua-boards-dialog',
  imports: [
    BoardCover,
    Button,
    CheckboxModule,
    DIALOG,
    EmptyState,
    FormsModule,
    LIST,
    ProblemMessage,
  ],
  templateUrl: './boards-dialog.html',
  styleUrl: './boards-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardsDialog {
  /** The course that the board in sight is of. */
  readonly course = input.required<Id>();
  /** The board in sight. */
  readonly current = input.required<Id>();
  readonly papers = input.required<PaperSource>();
  /** Whether it is for one who helps: they open boards of this course alone. */
  readonly helps = input(false);
  /** Those of the lesson that is open; `null` where none is. */
  readonly inLesson = input<readonly LessonBoard[] | null>(null);
  readonly chosen = output<BoardChoice>();
  /** A board is to be taken back from the class. */
  readonly withdrawn = output<Id>();
  readonly closed = output();

  private readonly boardsApi = inject(BoardsApi);
  private readonly coursesApi = inject(CoursesApi);
  private readonly lessonsApi = inject(LessonsApi);
  private readonly boards = signal<readonly BoardInfo[] | null>(null);
  protected readonly courses = signal<readonly Pick<Course, 'id' | 'name'>[]>([]);
  /** The course whose boards are listed; empty for this one. */
  protected readonly from = signal<Id | null>(null);
  protected readonly words = signal('');
  protected readonly shows = signal(true);
  /** Looking for boards keeps nobody from opening one. */
  protected readonly looking = new Attempt();
  protected readonly attempt = new Attempt();

  private readonly shown = computed(
    () => new Set((this.inLesson() ?? []).flatMap(({ id, shown }) => (shown ? [id] : []))),
  );
  protected readonly isOther = computed(
    () => this.from() !== null && this.from() !== this.course(),
  );
  protected readonly isLong = computed(() => (this.boards()?.length ?? 0) >= MANY);
  protected readonly isHere = computed(() => this.boards() !== null);
  /** Those of the lesson first, in the order in which they came. */
  protected readonly listed = computed(() => {
    const wanted = this.words().trim().toLocaleLowerCase();
    const places = new Map((this.inLesson() ?? []).map(({ id }, place) => [id, place]));
    const all = (this.boards() ?? [])
      .filter(({ title }) => title.toLocaleLowerCase().includes(wanted))
      .map(({ id, title }) => ({
        ...{ id, title },
        isCurrent: id === this.current(),
        isInLesson: places.has(id),
        isShown: this.shown().has(id),
      }));
    const placeOf = (id: Id): number => places.get(id) ?? Infinity;
    return all.sort((one, other) => placeOf(one.id) - placeOf(other.id) || 0);
  });
  /** One always stays with the class. */
  protected readonly mayWithdraw = computed(() => this.shown().size > 1);

  constructor() {
    effect(() => {
      const course = this.from() ?? this.course();
      untracked(() => void this.load(course));
    });
  }

  protected async choose(board: Id): Promise<void> {
    if (!this.isOther()) return this.go(board);
    const like = this.boards()?.find(({ id }) => id === board);
    if (!like) return;
    await this.attempt.make(async () => {
      const wish = { course: this.course(), title: like.title, lessonInk: false };
      const copy = await firstValueFrom(this.boardsApi.copyBoard(board, wish));
      this.go(copy.id);
    });
  }

  protected async empty(): Promise<void> {
    await this.attempt.make(async () => {
      const title = formatDay(Date.now());
      const board = await firstValueFrom(this.boardsApi.createBoard(this.course(), { title }));
      this.go(board.id);
    });
  }

  private go(board: Id): void {
    this.chosen.emit({ board, shows: this.inLesson() !== null && this.shows() });
  }

  private async load(course: Id): Promise<void> {
    this.boards.set(null);
    await this.looking.make(async () => {
      const boards = this.helps()
        ? await firstValueFrom(this.lessonsApi.listCourseBoards())
        : (await firstValueFrom(this.coursesApi.readCourse(course))).boards;
      // Another may have been chosen meanwhile.
      if (course !== (this.from() ?? this.course())) return;
      this.boards.set(boards);
      if (this.courses().length > 0 || this.helps()) return;
      const all = (await firstValueFrom(this.coursesApi.readToday())).courses;
      this.courses.set(all.map(({ id, name }) => ({ id, name })));
    });
  }
}
