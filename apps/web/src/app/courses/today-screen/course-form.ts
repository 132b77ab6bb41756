import { Slot, Title } from '@cuaderno/contract/courses';
import { ChangeDetectionStrategy, Component, effect, inject, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder } from '@angular/forms';
import { InputNumberModule } from 'primeng/inputnumber';
import { InputTextModule } from 'primeng/inputtext';
import { firstValueFrom, map } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { Attempt } from '../../api/attempt';
import { CoursesApi } from '../../api/courses-api';
import type { Course } from '../../api/shapes';
import { Button } from '../../ui/button/button';
import { DateField } from '../../ui/dates/date-field';
import { fits } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';
import { formatZone } from '../../ui/time/format-time';
import { shownZone } from '../../ui/time/shown-zone';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** Practice: 50 minutes of teaching. */
const USUAL_MINUTES = 50;

/** Asks for what a new course needs: its name, and when it meets if it meets every week. */
@Component({
  selector: 'cua-course-form',
  imports: [
    DateField,
    Button,
    DIALOG,
    FORM,
    InputNumberModule,
    InputTextModule,
    ProblemMessage,
    LIST,
  ],
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
  protected readonly form = inject(NonNullableFormBuilder).group({
    name: ['', fits(Title)],
    weekday: 0,
    startsAt: ['16:30', fits(Slot.shape.startsAt)],
    minutes: [USUAL_MINUTES as number | null, fits(Slot.shape.minutes)],
  });
  /** Whether it meets every week: only then it is asked when, and for how long. */
  protected readonly weekly = toSignal(
    this.form.controls.weekday.valueChanges.pipe(map((day) => day > 0)),
    { initialValue: false },
  );
  protected readonly attempt = new Attempt();
  protected readonly zone = shownZone();
  protected readonly say = { zone: formatZone };

  constructor() {
    // What isn't asked isn't wrong.
    effect(() => {
      const { startsAt, minutes } = this.form.controls;
      for (const control of [startsAt, minutes])
        if (this.weekly()) control.enable();
        else control.disable();
    });
  }

  protected async make(): Promise<void> {
    const { name, weekday, startsAt, minutes } = this.form.getRawValue();
    const slot = weekday ? { weekday, startsAt, minutes: minutes!, zone: this.zone } : null;
    await this.attempt.make(async () => {
      this.made.emit(await firstValueFrom(this.coursesApi.createCourse({ name, slot })));
    });
  }
}
