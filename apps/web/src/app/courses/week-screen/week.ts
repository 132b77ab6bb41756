import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { wallTimeOf } from '@cuaderno/core/timetable';
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
import { formatDay, formatZone } from '../../ui/time/format-time';
import { thisZone } from '../../ui/time/shown-zone';
import { CalendarDialog } from '../timetable/calendar-dialog';
import { DateDialog } from '../timetable/date-dialog';
import { MoveDateDialog } from '../timetable/move-date-dialog';
import { daysLater, isoDay, mondayOf, weekOf } from '../timetable/days';
import { PlanDialog } from '../timetable/plan-dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { ABOVE_TABLET, matches } from '../../ui/theme/matches';
import { weekEntries } from './week-entries';
import type { WeekEntry } from './week-entries';
import { WeekGrid } from './week-grid';
import type { Carried } from './week-grid';

const NOTHING_PLANNED: TimetablePart = { lessons: [], clashes: [], held: [], zone: null };
const shortDay = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
});

/** A week of lessons, by the clock of the tutor's time zone: on an axis of hours where there is room, else day by day. */
@Component({
  selector: 'cua-week',
  imports: [
    Button,
    CalendarDialog,
    DateDialog,
    MoveDateDialog,
    PlanDialog,
    ProblemMessage,
    RouterLink,
    WeekGrid,
  ],
  templateUrl: './week.html',
  styleUrl: './week.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WeekScreen {
  private readonly coursesApi = inject(CoursesApi);
  private readonly timetableApi = inject(TimetableApi);
  private readonly router = inject(Router);
  /** Whether there is room for seven days beside one another. */
  protected readonly isWide = matches(ABOVE_TABLET);
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
    const today = wallTimeOf(Date.now(), this.zone()).slice(0, 10);
    return mondayOf(new Date(`${from ?? today}T00:00`).getTime());
  });
  protected readonly part = signal<TimetablePart>(NOTHING_PLANNED);
  protected readonly courses = signal<readonly Course[]>([]);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly loaded = signal(false);
  protected readonly planning = signal<string | null>(null);
  protected readonly chosen = signal<Planned | null>(null);
  protected readonly calendars = signal(false);
  /** By whose clock the week is shown, and that of this machine. */
  protected readonly zone = computed(() => this.part().zone ?? thisZone());
  protected readonly here = thisZone();
  protected readonly say = { zone: formatZone };
  protected readonly title = computed(() => {
    const monday = this.monday();
    return `Week ${weekOf(monday)}, from ${formatDay(monday.getTime())}`;
  });
  protected readonly mondayIso = computed(() => isoDay(this.monday()));
  protected readonly going = computed(() =>
    this.courses().filter(({ retiredAt }) => retiredAt === null),
  );
  /** A lesson that was carried to another time, until it is said what is moved. */
  protected readonly carried = signal<Carried | null>(null);
  /** Those of the seven days, by the clock of the zone. */
  protected readonly entries = computed(() => {
    const zone = this.zone();
    const [first, next] = [this.mondayIso(), isoDay(daysLater(this.monday(), 7))];
    return weekEntries(this.part(), zone, this.here)
      .map((entry) => ({ ...entry, day: wallTimeOf(entry.at, zone).slice(0, 10) }))
      .filter(({ day }) => day >= first && day < next);
  });
  protected readonly days = computed(() => {
    const today = wallTimeOf(Date.now(), this.zone()).slice(0, 10);
    return Array.from({ length: 7 }, (_, i) => {
      const day = daysLater(this.monday(), i);
      const iso = isoDay(day);
      return {
        ...{ iso, label: shortDay.format(day), isToday: iso === today },
        entries: this.entries().filter((entry) => entry.day === iso),
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
    // A day more at both ends: it may be seen by the clock of another zone.
    const query = { from: daysLater(monday, -1).getTime(), to: daysLater(monday, 8).getTime() };
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

  protected open({ lesson, held }: WeekEntry): void {
    if (lesson) this.chosen.set(lesson);
    else if (held) void this.router.navigate(['/records', held.lesson]);
  }

  /** Nothing was moved: it is where it was. */
  protected putBack(): void {
    this.carried()?.putBack();
    this.carried.set(null);
  }

  protected changed(): void {
    this.carried.set(null);
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
}
