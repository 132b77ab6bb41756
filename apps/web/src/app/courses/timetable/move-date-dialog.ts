import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { wallTimeOf } from '@cuaderno/core/timetable';
import { firstValueFrom } from 'rxjs';
import type { Observable } from 'rxjs';
import { Attempt } from '../../api/attempt';
import type { Planned } from '../../api/timetable';
import { TimetableApi } from '../../api/timetable-api';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { formatTimesIn } from '../../ui/time/format-time';

/** Asks what of a series is moved when one of its dates was carried to another time. */
@Component({
  selector: 'cua-move-date-dialog',
  imports: [Button, DIALOG, ProblemMessage],
  template: `
    <cua-dialog header="Move this lesson" (closed)="closed.emit()">
      <p>
        <bdi>{{ lesson().courseName }}</bdi>: {{ says().from }} becomes
        <strong>{{ says().to }}</strong>.
      </p>
      <cua-problem [of]="attempt.problem()" />
      <ng-template cuaDialogFooter>
        <button type="button" cuaButton="quiet" (click)="closed.emit()">Leave it</button>
        <span class="space"></span>
        @if (lesson().series) {
          <button type="button" cuaButton [disabled]="attempt.busy()" (click)="moveAll()">
            This date and all after it
          </button>
          <button type="button" cuaButton="strong" [disabled]="attempt.busy()" (click)="moveOne()">
            This date only
          </button>
        } @else {
          <button type="button" cuaButton="strong" [disabled]="attempt.busy()" (click)="moveOne()">
            Move it
          </button>
        }
      </ng-template>
    </cua-dialog>
  `,
  styleUrl: './dialogs.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MoveDateDialog {
  readonly lesson = input.required<Planned>();
  /** When it is to begin, in ms since 1970. */
  readonly at = input.required<number>();
  /** By whose clock it is said. */
  readonly zone = input.required<string>();
  readonly moved = output();
  readonly closed = output();

  private readonly timetableApi = inject(TimetableApi);
  protected readonly attempt = new Attempt();
  protected readonly says = computed(() => {
    const { at, until } = this.lesson();
    const [zone, to] = [this.zone(), this.at()];
    return { from: formatTimesIn(at, until, zone), to: formatTimesIn(to, to + until - at, zone) };
  });

  protected moveOne(): Promise<void> {
    const { plan, was, why } = this.lesson();
    return this.move(this.timetableApi.changeDate(plan, { was, now: this.now(), why }));
  }

  protected moveAll(): Promise<void> {
    const { plan, was } = this.lesson();
    return this.move(this.timetableApi.moveSeries(plan, { was, now: this.now() }));
  }

  /** By the clock of the plan. */
  private now(): string {
    return wallTimeOf(this.at(), this.lesson().zone);
  }

  private async move(asked: Observable<unknown>): Promise<void> {
    await this.attempt.make(async () => {
      await firstValueFrom(asked);
      this.moved.emit();
    });
  }
}
