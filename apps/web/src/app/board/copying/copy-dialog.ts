import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { NonNullableFormBuilder } from '@angular/forms';
import { InputTextModule } from 'primeng/inputtext';
import { RadioButtonModule } from 'primeng/radiobutton';
import { firstValueFrom } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { Attempt } from '../../api/attempt';
import { BoardsApi } from '../../api/boards-api';
import { CoursesApi } from '../../api/courses-api';
import { RecordsApi } from '../../api/records-api';
import type { BoardInfo, Course } from '../../api/shapes';
import { Button } from '../../ui/button/button';
import { isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** What is copied: a board, or a board as a record has it. */
export interface CopySource {
  /** What is copied: a board as it is, or as a lesson left it. */
  readonly of: { readonly board: string } | { readonly record: string };
  /** How the copy is called at first. */
  readonly title: string;
  readonly course: string;
  /** What is written above. */
  readonly header: string;
  /** Whether what was written in lessons comes along, at first. */
  readonly lessonInk: boolean;
}

/** Asks how a board is to be copied: under which name, to which course, with or without ink. */
@Component({
  selector: 'cua-copy-dialog',
  imports: [Button, DIALOG, FORM, InputTextModule, ProblemMessage, RadioButtonModule, LIST],
  templateUrl: './copy-dialog.html',
  styleUrl: './copy-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CopyDialog {
  readonly source = input.required<CopySource>();
  readonly made = output<BoardInfo>();
  readonly closed = output();
  private readonly boardsApi = inject(BoardsApi);
  private readonly coursesApi = inject(CoursesApi);
  private readonly recordsApi = inject(RecordsApi);

  protected readonly courses = signal<readonly Pick<Course, 'id' | 'name'>[]>([]);
  protected readonly form = inject(NonNullableFormBuilder).group({
    title: ['', isWritten('Write a name for the copy.')],
    course: ['', isWritten('Choose a course.')],
    lessonInk: false,
  });
  protected readonly attempt = new Attempt();

  constructor() {
    effect(() => {
      const { title, course, lessonInk } = this.source();
      this.form.setValue({ title: title.slice(0, 120), course, lessonInk });
    });
    void this.attempt.make(async () => {
      this.courses.set((await firstValueFrom(this.coursesApi.readToday())).courses);
    });
  }

  protected async copy(): Promise<void> {
    const wish = this.form.getRawValue();
    const { of } = this.source();
    await this.attempt.make(async () => {
      const copied =
        'board' in of
          ? this.boardsApi.copyBoard(of.board, wish)
          : this.recordsApi.copyRecord(of.record, wish);
      this.made.emit(await firstValueFrom(copied));
    });
  }
}
