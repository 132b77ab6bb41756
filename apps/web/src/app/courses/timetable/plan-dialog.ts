import { PlanWish } from '@cuaderno/contract/timetable';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder } from '@angular/forms';
import { InputNumberModule } from 'primeng/inputnumber';
import { InputTextModule } from 'primeng/inputtext';
import { firstValueFrom } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { Attempt } from '../../api/attempt';
import { TimetableApi } from '../../api/timetable-api';
import type { Course } from '../../api/shapes';
import { Button } from '../../ui/button/button';
import { DateField } from '../../ui/dates/date-field';
import { fits, isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { formatZone } from '../../ui/time/format-time';
import { shownZone } from '../../ui/time/shown-zone';

/** 50 minutes in a slot of 60 (common practice, no source). */
const USUAL = { minutes: 50, buffer: 10 } as const;

/** Plans lessons of a course: one, or one every week. */
@Component({
  selector: 'cua-plan-dialog',
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
  templateUrl: './plan-dialog.html',
  styleUrl: './dialogs.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanDialog {
  readonly courses = input.required<readonly Pick<Course, 'id' | 'name'>[]>();
  /** The day that is proposed, and a time if one is: `2026-12-01`, `2026-12-01T16:30`. */
  readonly on = input.required<string>();
  /** IANA time zone by whose clock it is planned. */
  readonly zone = input(shownZone());
  readonly made = output();
  readonly closed = output();
  private readonly timetableApi = inject(TimetableApi);

  protected readonly form = inject(NonNullableFormBuilder).group({
    course: ['', isWritten('Choose a course.')],
    topic: ['', fits(PlanWish.shape.topic)],
    day: ['', isWritten('Choose a day.')],
    time: ['16:30', isWritten('Write a time such as 16:30.')],
    minutes: [USUAL.minutes as number | null, fits(PlanWish.shape.minutes)],
    buffer: [USUAL.buffer as number | null, fits(PlanWish.shape.buffer)],
    weekly: true,
    /** The last day on which it may be; empty where there is none. */
    until: '',
  });
  private readonly values = toSignal(this.form.valueChanges, { initialValue: this.form.value });
  protected readonly weekly = computed(() => this.values().weekly ?? false);
  protected readonly day = computed(() => this.values().day ?? '');
  protected readonly attempt = new Attempt();
  protected readonly say = { zone: formatZone };

  constructor() {
    effect(() => {
      const [day, time] = this.on().split('T');
      this.form.controls.day.setValue(day!);
      if (time) this.form.controls.time.setValue(time);
    });
    // Courses may come late, and come anew: who has chosen one keeps it.
    effect(() => {
      const first = this.courses()[0]?.id;
      const { course } = this.form.controls;
      if (first && course.value === '') course.setValue(first);
    });
  }

  protected async plan(): Promise<void> {
    const { course, day, time, topic, minutes, buffer, weekly, until } = this.form.getRawValue();
    await this.attempt.make(async () => {
      await firstValueFrom(
        this.timetableApi.planLesson(course, {
          topic: topic.trim(),
          start: `${day}T${time}`,
          zone: this.zone(),
          minutes: minutes!,
          buffer: buffer!,
          weekly,
          until: weekly && until ? until : null,
        }),
      );
      this.made.emit();
    });
  }
}
