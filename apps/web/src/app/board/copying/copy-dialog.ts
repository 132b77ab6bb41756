import {
  ChangeDetectionStrategy,
  Component,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ButtonModule } from 'primeng/button';
import { InputTextModule } from 'primeng/inputtext';
import { RadioButtonModule } from 'primeng/radiobutton';
import { SelectModule } from 'primeng/select';
import { firstValueFrom } from 'rxjs';
import { BoardsApi } from '../../api/boards-api';
import { CoursesApi } from '../../api/courses-api';
import { RecordsApi } from '../../api/records-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { BoardInfo, Course } from '../../api/shapes';
import { DIALOG } from '../../ui/popup/dialog';

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
  imports: [ButtonModule, DIALOG, FormsModule, InputTextModule, RadioButtonModule, SelectModule],
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
  protected readonly title = linkedSignal(() => this.source().title.slice(0, 120));
  protected readonly course = linkedSignal(() => this.source().course);
  protected readonly lessonInk = linkedSignal(() => this.source().lessonInk);
  protected readonly busy = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);

  constructor() {
    void this.load();
  }

  protected async copy(): Promise<void> {
    this.busy.set(true);
    this.problem.set(null);
    try {
      const wish = { title: this.title(), course: this.course(), lessonInk: this.lessonInk() };
      const { of } = this.source();
      const copied =
        'board' in of
          ? this.boardsApi.copyBoard(of.board, wish)
          : this.recordsApi.copyRecord(of.record, wish);
      this.made.emit(await firstValueFrom(copied));
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }

  private async load(): Promise<void> {
    try {
      this.courses.set((await firstValueFrom(this.coursesApi.readToday())).courses);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }
}
