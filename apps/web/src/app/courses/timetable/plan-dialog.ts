import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ButtonModule } from 'primeng/button';
import { InputTextModule } from 'primeng/inputtext';
import { SelectModule } from 'primeng/select';
import { firstValueFrom } from 'rxjs';
import { TimetableApi } from '../../api/timetable-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Course } from '../../api/shapes';
import { DIALOG } from '../../ui/popup/dialog';

/** 50 minutes in a slot of 60 (common practice, no source). */
const USUAL = { minutes: 50, buffer: 10 } as const;

/** Plans lessons of a course: one, or one every week. */
@Component({
  selector: 'cua-plan-dialog',
  imports: [ButtonModule, DIALOG, FormsModule, InputTextModule, SelectModule],
  templateUrl: './plan-dialog.html',
  styleUrl: './dialogs.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanDialog {
  readonly courses = input.required<readonly Pick<Course, 'id' | 'name'>[]>();
  /** The day that is proposed, as `2026-11-24`. */
  readonly on = input.required<string>();
  readonly made = output();
  readonly closed = output();
  private readonly timetableApi = inject(TimetableApi);

  protected readonly course = linkedSignal(() => this.courses()[0]?.id ?? null);
  protected readonly topic = signal('');
  protected readonly day = linkedSignal(() => this.on());
  protected readonly time = signal('16:30');
  protected readonly minutes = signal<number>(USUAL.minutes);
  protected readonly buffer = signal<number>(USUAL.buffer);
  protected readonly weekly = signal(true);
  protected readonly until = signal('');
  protected readonly busy = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  protected readonly ready = computed(() => this.course() && this.day() && this.time());

  protected async plan(): Promise<void> {
    const course = this.course();
    if (course === null) return;
    this.busy.set(true);
    this.problem.set(null);
    try {
      await firstValueFrom(
        this.timetableApi.planLesson(course, {
          topic: this.topic().trim(),
          start: `${this.day()}T${this.time()}`,
          zone: this.zone,
          minutes: Number(this.minutes()),
          buffer: Number(this.buffer()),
          weekly: this.weekly(),
          until: this.weekly() && this.until() ? this.until() : null,
        }),
      );
      this.made.emit();
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
