import { ChangeDetectionStrategy, Component, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ButtonModule } from 'primeng/button';
import { InputTextModule } from 'primeng/inputtext';
import { SelectModule } from 'primeng/select';
import { firstValueFrom } from 'rxjs';
import { CoursesApi } from '../../api/courses-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Course, Slot } from '../../api/shapes';
import { DIALOG } from '../../ui/popup/dialog';

/** Practice: 50 minutes of teaching. */
const USUAL_MINUTES = 50;

/** Asks for what a new course needs: its name, and when it meets if it meets every week. */
@Component({
  selector: 'cua-course-form',
  imports: [ButtonModule, DIALOG, FormsModule, InputTextModule, SelectModule],
  templateUrl: './course-form.html',
  styleUrl: './course-form.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CourseForm {
  private readonly coursesApi = inject(CoursesApi);
  readonly made = output<Course>();
  readonly closed = output();

  protected readonly days = [
    { label: 'Not every week', value: 0 },
    ...['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'].map(
      (label, i) => ({ label, value: i + 1 }),
    ),
  ];
  protected readonly name = signal('');
  protected readonly weekday = signal(0);
  protected readonly startsAt = signal('16:30');
  protected readonly minutes = signal(USUAL_MINUTES);
  protected readonly busy = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

  protected async make(): Promise<void> {
    const slot: Slot | null = this.weekday()
      ? {
          weekday: this.weekday(),
          startsAt: this.startsAt(),
          minutes: Number(this.minutes()),
          zone: this.zone,
        }
      : null;
    this.busy.set(true);
    this.problem.set(null);
    try {
      this.made.emit(
        await firstValueFrom(this.coursesApi.createCourse({ name: this.name(), slot })),
      );
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
