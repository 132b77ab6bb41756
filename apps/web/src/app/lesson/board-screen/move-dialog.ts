import type { Id } from '@cuaderno/core/id';
import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder } from '@angular/forms';
import { firstValueFrom } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { Attempt } from '../../api/attempt';
import { BoardsApi } from '../../api/boards-api';
import { CoursesApi } from '../../api/courses-api';
import type { BoardInfo, Course } from '../../api/shapes';
import { Button } from '../../ui/button/button';
import { isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** Asks to which board pages are to go, and takes them there. */
@Component({
  selector: 'cua-move-dialog',
  imports: [Button, DIALOG, FORM, ProblemMessage, LIST],
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
  protected readonly boards = signal<readonly BoardInfo[]>([]);
  protected readonly form = inject(NonNullableFormBuilder).group({
    course: ['', isWritten('Choose a course.')],
    board: ['', isWritten('Choose a board.')],
  });
  private readonly chosenCourse = toSignal(this.form.controls.course.valueChanges, {
    initialValue: '',
  });
  protected readonly ready = signal(false);
  protected readonly attempt = new Attempt();

  constructor() {
    effect(() => this.form.controls.course.setValue(this.course()));
    effect(() => {
      const course = this.chosenCourse();
      if (course) untracked(() => void this.load(course));
    });
  }

  protected async move(): Promise<void> {
    const to = this.boards().find(({ id }) => id === this.form.getRawValue().board);
    if (!to) return;
    await this.attempt.make(async () => {
      await firstValueFrom(
        this.boardsApi.movePages(this.board(), { pages: this.pages(), to: to.id }),
      );
      this.moved.emit(to);
    });
  }

  private async load(course: string): Promise<void> {
    this.ready.set(false);
    // Those of one course are never offered as another's.
    this.boards.set([]);
    this.form.controls.board.setValue('');
    await this.attempt.make(async () => {
      if (this.courses().length === 0)
        this.courses.set((await firstValueFrom(this.coursesApi.readToday())).courses);
      const { boards } = await firstValueFrom(this.coursesApi.readCourse(course));
      // Another course may have been chosen meanwhile.
      if (course !== this.form.getRawValue().course) return;
      const others = boards.filter(({ id }) => id !== this.board());
      this.boards.set(others);
      this.form.controls.board.setValue(others[0]?.id ?? '');
      this.ready.set(true);
    });
  }
}
