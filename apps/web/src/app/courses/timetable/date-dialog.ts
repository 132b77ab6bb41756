import { changeDate } from '@cuaderno/contract/routes/timetable';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { InputTextModule } from 'primeng/inputtext';
import { firstValueFrom } from 'rxjs';
import type { Observable } from 'rxjs';
import { Attempt } from '../../api/attempt';
import { TimetableApi } from '../../api/timetable-api';
import type { Planned } from '../../api/timetable';
import { Button } from '../../ui/button/button';
import { DateField } from '../../ui/dates/date-field';
import { Confirm } from '../../ui/confirm/confirm';
import { fits, isWritten } from '../../ui/forms/fits';
import { FORM } from '../../ui/forms/form';
import { DIALOG } from '../../ui/popup/dialog';
import { formatTimesIn, formatZone } from '../../ui/time/format-time';
import { shownZone, thisZone } from '../../ui/time/shown-zone';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** One date of the timetable: moved, cancelled, as planned again; or the end of its series. */
@Component({
  selector: 'cua-date-dialog',
  imports: [DateField, Button, Confirm, DIALOG, FORM, InputTextModule, ProblemMessage, RouterLink],
  templateUrl: './date-dialog.html',
  styleUrl: './dialogs.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DateDialog {
  readonly lesson = input.required<Planned>();
  readonly changed = output();
  readonly closed = output();
  private readonly timetableApi = inject(TimetableApi);

  protected readonly form = inject(NonNullableFormBuilder).group({
    day: ['', isWritten('Choose a day.')],
    time: ['', isWritten('Write a time such as 16:30.')],
    why: ['', fits(changeDate.body.shape.why)],
  });
  private readonly values = toSignal(this.form.valueChanges, { initialValue: this.form.value });
  protected readonly attempt = new Attempt();
  protected readonly ending = signal(false);
  protected readonly say = { times: formatTimesIn, zone: formatZone };
  /** The clocks of the tutor's time zone and of this machine, where they aren't that of the timetable. */
  protected readonly otherZones = computed(() =>
    [...new Set([shownZone(), thisZone()])].filter((zone) => zone !== this.lesson().zone),
  );
  protected readonly isMoved = computed(() => {
    const { day, time } = this.values();
    return `${day}T${time}` !== this.lesson().wall;
  });

  constructor() {
    effect(() => {
      const { wall, why } = this.lesson();
      this.form.setValue({ day: wall.slice(0, 10), time: wall.slice(11), why });
    });
  }

  protected move(): Promise<void> {
    const { day, time, why } = this.form.getRawValue();
    return this.change(
      this.timetableApi.changeDate(this.plan(), { ...this.body(), now: `${day}T${time}`, why }),
    );
  }

  protected cancel(): Promise<void> {
    const { why } = this.form.getRawValue();
    return this.change(
      this.timetableApi.changeDate(this.plan(), { ...this.body(), now: null, why }),
    );
  }

  protected restore(): Promise<void> {
    return this.change(this.timetableApi.restoreDate(this.plan(), this.body()));
  }

  protected end(): Promise<void> {
    return this.change(this.timetableApi.endPlan(this.plan(), this.body()));
  }

  private plan(): string {
    return this.lesson().plan;
  }

  /** Which of its dates is meant. */
  private body(): { was: string } {
    return { was: this.lesson().was };
  }

  private async change(asked: Observable<null>): Promise<void> {
    await this.attempt.make(async () => {
      await firstValueFrom(asked);
      this.changed.emit();
    });
  }
}
