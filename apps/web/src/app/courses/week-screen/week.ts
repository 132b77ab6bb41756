import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { catchError, EMPTY, firstValueFrom, merge, Subject, switchMap } from 'rxjs';
import type { Observable } from 'rxjs';
import { CoursesApi } from '../../api/courses-api';
import { TimetableApi } from '../../api/timetable-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Course } from '../../api/shapes';
import type { Planned, TimetablePart } from '../../api/timetable';
import { inAddress } from '../../ui/address/address';
import { Button } from '../../ui/button/button';
import { readDay } from '../../ui/dates/read-date';
import { download } from '../../ui/download/download';
import { formatDay, formatSpan, formatZone } from '../../ui/time/format-time';
import { CalendarDialog } from '../timetable/calendar-dialog';
import { DateDialog } from '../timetable/date-dialog';
import { daysLater, isoDay, mondayOf, weekOf } from '../timetable/days';
import { PlanDialog } from '../timetable/plan-dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';

const NOTHING_PLANNED: TimetablePart = { lessons: [], clashes: [] };
const shortDay = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
});

/** A week of lessons, by this machine's clock. */
@Component({
  selector: 'cua-week',
  imports: [Button, CalendarDialog, DateDialog, PlanDialog, ProblemMessage],
  templateUrl: './week.html',
  styleUrl: './week.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WeekScreen {
  private readonly coursesApi = inject(CoursesApi);
  private readonly timetableApi = inject(TimetableApi);
  /** A day of the week that is shown; this week where the address names none. */
  private readonly from = inAddress<string | null>(
    'from',
    (text) => {
      const day = readDay(text, new Date());
      return day && isoDay(day);
    },
    null,
  );
  protected readonly monday = computed(() => {
    const from = this.from();
    return mondayOf(from ? new Date(`${from}T00:00`).getTime() : Date.now());
  });
  protected readonly part = signal<TimetablePart>(NOTHING_PLANNED);
  protected readonly courses = signal<readonly Course[]>([]);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly loaded = signal(false);
  protected readonly planning = signal<string | null>(null);
  protected readonly chosen = signal<Planned | null>(null);
  protected readonly calendars = signal(false);
  protected readonly zone = formatZone();
  protected readonly say = { span: formatSpan };
  protected readonly title = computed(() => {
    const monday = this.monday();
    return `Week ${weekOf(monday)}, from ${formatDay(monday.getTime())}`;
  });
  protected readonly going = computed(() =>
    this.courses().filter(({ retiredAt }) => retiredAt === null),
  );
  protected readonly days = computed(() => {
    const today = isoDay(new Date());
    const { lessons, clashes } = this.part();
    return Array.from({ length: 7 }, (_, i) => {
      const day = daysLater(this.monday(), i);
      const [from, to] = [day.getTime(), daysLater(day, 1).getTime()];
      const here = lessons.filter(({ at }) => at >= from && at < to);
      return {
        iso: isoDay(day),
        label: shortDay.format(day),
        isToday: isoDay(day) === today,
        lessons: here.map((lesson) => ({ lesson, clash: this.clashOf(lesson, lessons, clashes) })),
      };
    });
  });

  private readonly again = new Subject<void>();

  constructor() {
    merge(toObservable(this.monday), this.again)
      .pipe(
        // Another week may be turned to meanwhile.
        switchMap(() => this.week()),
        takeUntilDestroyed(),
      )
      .subscribe((part) => {
        this.part.set(part);
        this.loaded.set(true);
      });
    void this.loadCourses();
  }

  protected load(): void {
    this.again.next();
  }

  private week(): Observable<TimetablePart> {
    this.problem.set(null);
    const monday = this.monday();
    const query = { from: monday.getTime(), to: daysLater(monday, 7).getTime() };
    return this.timetableApi.readTimetable(query).pipe(
      catchError((error: unknown) => {
        this.problem.set(problemOf(error));
        return EMPTY;
      }),
    );
  }

  protected turn(weeks: number): void {
    this.from.set(weeks === 0 ? null : isoDay(daysLater(this.monday(), 7 * weeks)));
  }

  protected changed(): void {
    this.planning.set(null);
    this.chosen.set(null);
    this.calendars.set(false);
    this.load();
  }

  protected async saveCalendar(): Promise<void> {
    this.problem.set(null);
    try {
      const { blob, name } = await firstValueFrom(this.timetableApi.downloadTimetable());
      download(blob, name);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  private async loadCourses(): Promise<void> {
    try {
      this.courses.set((await firstValueFrom(this.coursesApi.readToday())).courses);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  /** What is in the way of a lesson, in words. */
  private clashOf(
    lesson: Planned,
    lessons: readonly Planned[],
    clashes: TimetablePart['clashes'],
  ): string | null {
    const is = (one: Pick<Planned, 'plan' | 'was'>): boolean =>
      one.plan === lesson.plan && one.was === lesson.was;
    for (const { first, second, how } of clashes) {
      const other = is(first) ? second : is(second) ? first : null;
      const found =
        other && lessons.find(({ plan, was }) => plan === other.plan && was === other.was);
      if (!found) continue;
      if (how === 'overlap') return `At the same time as ${found.courseName}`;
      return is(second)
        ? `No break after ${found.courseName}`
        : `No break before ${found.courseName}`;
    }
    return null;
  }
}
