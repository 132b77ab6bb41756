import type { Id } from '@cuaderno/core';
import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ButtonModule } from 'primeng/button';
import { SelectModule } from 'primeng/select';
import { firstValueFrom } from 'rxjs';
import { BoardsApi } from '../../api/boards-api';
import { CoursesApi } from '../../api/courses-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { BoardInfo, Course } from '../../api/shapes';
import { DIALOG } from '../../ui/popup/dialog';

/** Asks to which board pages are to go, and takes them there. */
@Component({
  selector: 'cua-move-dialog',
  imports: [ButtonModule, DIALOG, FormsModule, SelectModule],
  templateUrl: './move-dialog.html',
  styleUrl: './move-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MoveDialog {
  readonly pages = input.required<readonly Id[]>();
  readonly board = input.required<string>();
  readonly course = input.required<string>();
  readonly moved = output<BoardInfo>();
  readonly closed = output();
  private readonly boardsApi = inject(BoardsApi);
  private readonly coursesApi = inject(CoursesApi);

  protected readonly courses = signal<readonly Pick<Course, 'id' | 'name'>[]>([]);
  protected readonly chosenCourse = linkedSignal(() => this.course());
  protected readonly boards = signal<readonly BoardInfo[]>([]);
  protected readonly chosen = signal<string | null>(null);
  protected readonly ready = signal(false);
  protected readonly busy = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);

  constructor() {
    void this.try(async () => {
      this.courses.set((await firstValueFrom(this.coursesApi.readToday())).courses);
    });
    effect(() => {
      const course = this.chosenCourse();
      untracked(() => void this.load(course));
    });
  }

  protected async move(): Promise<void> {
    const to = this.boards().find(({ id }) => id === this.chosen());
    if (!to) return;
    await this.try(async () => {
      await firstValueFrom(
        this.boardsApi.movePages(this.board(), { pages: this.pages(), to: to.id }),
      );
      this.moved.emit(to);
    });
  }

  private async load(course: string): Promise<void> {
    this.ready.set(false);
    this.chosen.set(null);
    await this.try(async () => {
      const { boards } = await firstValueFrom(this.coursesApi.readCourse(course));
      const others = boards.filter(({ id }) => id !== this.board());
      this.boards.set(others);
      this.chosen.set(others[0]?.id ?? null);
      this.ready.set(true);
    });
  }

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
