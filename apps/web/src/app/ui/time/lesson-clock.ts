import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { interval } from 'rxjs';
import { Button } from '../button/button';
import { Popup } from '../popup/popup';
import { formatLength } from './format-time';
import { shownZone } from './shown-zone';

/** How long before the end the clock says so, in ms; practice, no source. */
const NEAR = 5 * 60_000;
const MINUTE = 60_000;
/** How often it is looked at the clock, in ms. */
const TICK = 5000;
/** How long a lesson is planned where nothing was said; practice: 50 minutes of teaching. */
const USUAL = 50 * MINUTE;

/** How long the lesson is open, until when it is planned, and that its end is near. */
@Component({
  selector: 'cua-lesson-clock',
  imports: [Button, Popup],
  template: `
    <button
      type="button"
      class="clock"
      role="timer"
      [class.near]="state() === 'near'"
      [class.over]="state() === 'over'"
      [attr.aria-label]="'Lesson clock: ' + words()"
      [disabled]="!mayPlan()"
      (click)="plan.toggle($event)"
    >
      {{ words() }}
    </button>
    <cua-popup #plan label="The end of the lesson">
      <div class="plan">
        <p>
          {{ endsAt() === null ? 'No end is planned.' : 'Planned until ' + until() + '.' }}
        </p>
        @if (endsAt(); as end) {
          <button type="button" cuaButton (click)="planned.emit(end - 5 * minute)">
            5 minutes sooner
          </button>
          <button type="button" cuaButton (click)="planned.emit(end + 5 * minute)">
            5 minutes later
          </button>
          <button type="button" cuaButton="quiet" (click)="planned.emit(null)">No end</button>
        } @else {
          <button type="button" cuaButton (click)="planned.emit(openedAt() + usual)">
            50 minutes from the opening
          </button>
        }
      </div>
    </cua-popup>
  `,
  styles: `
    .clock {
      min-height: 34px;
      padding: 0 var(--space-6);
      border: 0;
      border-radius: 99px;
      background: var(--moss-soft);
      color: var(--moss);
      font: inherit;
      font-size: var(--size-m);
      font-weight: 600;
      font-variant-numeric: tabular-nums;
      white-space: nowrap;
    }
    .clock:enabled {
      cursor: pointer;
    }
    .near,
    .over {
      background: var(--amber-soft);
      color: var(--amber);
    }
    .plan {
      display: grid;
      gap: var(--space-3);
    }
    p {
      margin: 0 0 var(--space-2);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LessonClock {
  /** In ms since 1970, by the server's clock. */
  readonly openedAt = input.required<number>();
  readonly endsAt = input<number | null>(null);
  /** How far the server’s clock is ahead of this machine’s, in ms. */
  readonly ahead = input(0);
  readonly mayPlan = input(false);
  readonly planned = output<number | null>();
  /** Its end is near: said once. */
  readonly near = output<number>();

  protected readonly minute = MINUTE;
  protected readonly usual = USUAL;
  private readonly here = signal(Date.now());
  private readonly now = computed(() => this.here() + this.ahead());
  private said: number | null = null;

  protected readonly state = computed(() => {
    const end = this.endsAt();
    if (end === null) return 'open';
    const left = end - this.now();
    return left <= 0 ? 'over' : left <= NEAR ? 'near' : 'open';
  });
  protected readonly until = computed(() =>
    new Intl.DateTimeFormat(undefined, {
      ...{ hour: '2-digit', minute: '2-digit', timeZone: shownZone() },
    }).format(this.endsAt() ?? 0),
  );
  protected readonly words = computed(() => {
    const end = this.endsAt();
    const open = `open ${formatLength(Math.max(0, this.now() - this.openedAt()))}`;
    if (end === null) return open;
    const left = end - this.now();
    if (left <= 0) return `${formatLength(-left)} over`;
    return left <= NEAR
      ? `${formatLength(left + MINUTE - 1)} left`
      : `${open} · until ${this.until()}`;
  });

  constructor() {
    interval(TICK)
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.tick());
  }

  private tick(): void {
    this.here.set(Date.now());
    const end = this.endsAt();
    if (this.state() !== 'near' || end === this.said) return;
    this.said = end;
    this.near.emit(Math.max(1, Math.round((end! - this.now()) / MINUTE)));
  }
}
