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
import { RouterLink } from '@angular/router';
import { ButtonModule } from 'primeng/button';
import { InputTextModule } from 'primeng/inputtext';
import { firstValueFrom } from 'rxjs';
import type { Observable } from 'rxjs';
import { TimetableApi } from '../../api/timetable-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Planned } from '../../api/timetable';
import { DIALOG } from '../../ui/popup/dialog';
import { formatTimesIn } from '../../ui/time/format-time';

/** One date of the timetable: moved, cancelled, as planned again; or the end of its series. */
@Component({
  selector: 'cua-date-dialog',
  imports: [ButtonModule, DIALOG, FormsModule, InputTextModule, RouterLink],
  templateUrl: './date-dialog.html',
  styleUrl: './dialogs.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DateDialog {
  readonly lesson = input.required<Planned>();
  readonly changed = output();
  readonly closed = output();
  private readonly timetableApi = inject(TimetableApi);

  protected readonly day = linkedSignal(() => this.lesson().wall.slice(0, 10));
  protected readonly time = linkedSignal(() => this.lesson().wall.slice(11));
  protected readonly why = linkedSignal(() => this.lesson().why);
  protected readonly busy = signal(false);
  protected readonly ending = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly say = { times: formatTimesIn };
  protected readonly ownZone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  protected readonly isMoved = computed(
    () => `${this.day()}T${this.time()}` !== this.lesson().wall,
  );

  protected move(): Promise<void> {
    const now = `${this.day()}T${this.time()}`;
    return this.change(
      this.timetableApi.changeDate(this.plan(), { ...this.body(), now, why: this.why() }),
    );
  }

  protected cancel(): Promise<void> {
    return this.change(
      this.timetableApi.changeDate(this.plan(), { ...this.body(), now: null, why: this.why() }),
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
    this.busy.set(true);
    this.problem.set(null);
    try {
      await firstValueFrom(asked);
      this.changed.emit();
    } catch (error) {
      this.problem.set(problemOf(error));
    } finally {
      this.busy.set(false);
    }
  }
}
