import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  output,
  signal,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { exhaustMap, firstValueFrom, interval, startWith } from 'rxjs';
import * as z from 'zod';
import { CoursesApi } from '../../api/courses-api';
import { TimetableApi } from '../../api/timetable-api';
import type { Planned } from '../../api/timetable';
import { readJson } from '../../browser/read-json';
import { ofTab, remember } from '../../browser/storage';
import { Button } from '../../ui/button/button';
import { formatClock } from '../../ui/time/format-time';

/** How often it is looked what comes, and how often what is said is said anew, in ms. */
const ASK_EVERY = 60_000;
const MINUTE = 60_000;
/** The door is open from so long before (common practice, no source), in ms. */
const BEFORE = 10 * MINUTE;
const KEY = 'cuaderno-reminded';

/** A line above all of the tutor's screens, ten minutes before a lesson that isn't open yet. */
@Component({
  selector: 'cua-reminder',
  imports: [Button, RouterLink],
  template: `
    @if (due(); as lesson) {
      <p role="status">
        <span>
          <strong
            ><bdi>{{ lesson.courseName }}</bdi></strong
          >
          {{ words() }}
        </span>
        <a cuaButton [routerLink]="['/courses', lesson.course]" (click)="dismiss(lesson)"
          >Get it ready</a
        >
        <button type="button" cuaButton="quiet" (click)="dismiss(lesson)">All right</button>
      </p>
    }
  `,
  styles: `
    p {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: var(--space-2) var(--space-7);
      margin: 0;
      padding: var(--space-2) var(--space-10);
      background: var(--amber-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Reminder {
  /** Whether there is something to be said. */
  readonly said = output<boolean>();
  private readonly coursesApi = inject(CoursesApi);
  private readonly timetableApi = inject(TimetableApi);
  private readonly coming = signal<readonly Planned[]>([]);
  private readonly now = signal(Date.now());
  private readonly known = signal<ReadonlySet<string>>(read());

  protected readonly due = computed(
    () =>
      this.coming().find(
        (lesson) =>
          lesson.at - this.now() <= BEFORE &&
          this.now() < lesson.until &&
          !this.known().has(keyOf(lesson)),
      ) ?? null,
  );
  protected readonly words = computed(() => {
    const lesson = this.due();
    if (!lesson) return '';
    const minutes = Math.ceil((lesson.at - this.now()) / MINUTE);
    if (minutes > 1) return `begins in ${minutes} minutes, at ${formatClock(lesson.at)}.`;
    if (minutes === 1) return `begins in a minute, at ${formatClock(lesson.at)}.`;
    return `was to begin at ${formatClock(lesson.at)}.`;
  });

  constructor() {
    interval(ASK_EVERY)
      .pipe(
        startWith(0),
        exhaustMap(() => this.look()),
        takeUntilDestroyed(),
      )
      .subscribe();
    effect(() => this.said.emit(this.due() !== null));
  }

  /** The tutor knows. */
  protected dismiss(lesson: Planned): void {
    const known = new Set(this.known()).add(keyOf(lesson));
    this.known.set(known);
    remember(ofTab, KEY, JSON.stringify([...known]));
  }

  private async look(): Promise<void> {
    const now = Date.now();
    try {
      const query = { from: now, to: now + BEFORE + 2 * ASK_EVERY };
      const { lessons } = await firstValueFrom(this.timetableApi.readTimetable(query));
      const held = lessons.filter(({ state }) => state !== 'cancelled');
      // Which are open is asked only where something comes.
      const { courses } =
        held.length > 0 ? await firstValueFrom(this.coursesApi.readToday()) : { courses: [] };
      const open = new Set(courses.filter(({ lesson }) => lesson).map(({ id }) => id));
      this.coming.set(held.filter(({ course }) => !open.has(course)));
      this.now.set(now);
    } catch {
      // The line may be back by the next time.
    }
  }
}

function keyOf({ plan, was }: Planned): string {
  return `${plan} ${was}`;
}

function read(): ReadonlySet<string> {
  return new Set(readJson(z.array(z.string()), ofTab.getItem(KEY)));
}
