import type { Answer } from '@cuaderno/contract/route';
import type { importCalendar } from '@cuaderno/contract/routes/timetable';
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
import { firstValueFrom } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { Attempt } from '../../api/attempt';
import { TimetableApi } from '../../api/timetable-api';
import type { Course } from '../../api/shapes';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';
import { inShownZone } from '../../ui/time/shown-zone';
import { ProblemMessage } from '../../ui/problem/problem-message';

type Brought = Answer<typeof importCalendar>;

/** Brings the events of a calendar file as lessons of a course. */
@Component({
  selector: 'cua-calendar-dialog',
  imports: [Button, DIALOG, FormsModule, ProblemMessage, LIST],
  template: `
    <cua-dialog header="Import a calendar" (closed)="closed.emit()">
      <p class="soft">Every event of a calendar file (.ics) becomes a lesson of one course.</p>
      <div class="fields">
        <label class="field wide"
          >Course
          <p-select
            name="course"
            ariaLabel="Course"
            appendTo="body"
            optionLabel="name"
            optionValue="id"
            [options]="$any(courses())"
            [ngModel]="course()"
            (ngModelChange)="course.set($event)"
          />
        </label>
        <label class="field wide"
          >Calendar file
          <input
            #field
            type="file"
            accept=".ics,text/calendar"
            (change)="importFile(field)"
            [disabled]="attempt.busy() || !course()"
          />
        </label>
      </div>
      <cua-problem [of]="attempt.problem()" />
      @if (came(); as it) {
        <p role="status">
          {{ it.made === 1 ? 'One event' : it.made + ' events' }} of “<bdi>{{ it.file }}</bdi
          >” {{ it.made === 1 ? 'is' : 'are' }} in the timetable now.
        </p>
        @if (it.skipped.length > 0) {
          <p>These can’t be lessons:</p>
          <ul>
            @for (one of it.skipped; track $index) {
              <li>
                <bdi>{{ one.summary || 'Without a name' }}</bdi>: {{ one.why }}
              </li>
            }
          </ul>
        }
      }
      <ng-template cuaDialogFooter>
        <button type="button" cuaButton="strong" (click)="closed.emit()">Done</button>
      </ng-template>
    </cua-dialog>
  `,
  styleUrl: './dialogs.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CalendarDialog {
  readonly courses = input.required<readonly Pick<Course, 'id' | 'name'>[]>();
  readonly imported = output();
  readonly closed = output();
  private readonly timetableApi = inject(TimetableApi);
  protected readonly course = linkedSignal(() => this.courses()[0]?.id ?? null);
  protected readonly attempt = new Attempt();
  protected readonly came = signal<(Brought & { readonly file: string }) | null>(null);

  protected async importFile(field: HTMLInputElement): Promise<void> {
    const [file] = field.files ?? [];
    if (!file) return;
    this.came.set(null);
    await this.attempt.make(async () => {
      const imported = await firstValueFrom(
        this.timetableApi.importCalendar(this.course()!, file, inShownZone()),
      );
      this.came.set({ ...imported, file: file.name });
      this.imported.emit();
    });
    field.value = '';
  }
}
