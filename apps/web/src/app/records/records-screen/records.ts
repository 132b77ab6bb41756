import { momentOf } from '@cuaderno/core/timetable';
import { SAID_SOURCES } from '@cuaderno/core/features';
import type { SaidSource } from '@cuaderno/core/features';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  signal,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import {
  catchError,
  EMPTY,
  firstValueFrom,
  map,
  merge,
  of,
  startWith,
  Subject,
  switchMap,
  tap,
  throttleTime,
} from 'rxjs';
import type { Observable } from 'rxjs';
import { LIST } from '../../ui/list/list';
import { CoursesApi } from '../../api/courses-api';
import { RecordsApi } from '../../api/records-api';
import { StudentDataApi } from '../../api/student-data-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { Course, Found, FoundRecord, LessonAttended } from '../../api/shapes';
import type { Deletion } from '../../api/student-data';
import { RecordCard } from '../record-card/record-card';
import { LocalFiles } from '../../board/drawing/local-files';
import { PaperSource } from '../../board/drawing/paper-source';
import { Button } from '../../ui/button/button';
import { DateField } from '../../ui/dates/date-field';
import { ArchiveButton } from '../export/archive-button';
import { download } from '../../ui/download/download';
import { SAID } from '../../live/features/in-record';
import { CourseAttendance } from '../statistics/course-attendance';
import { DeletionDialog } from '../student-data/deletion-dialog';
import { DeletionsDialog } from '../student-data/deletions-dialog';
import { inShownZone, shownZone } from '../../ui/time/shown-zone';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** How soon after one key the next is looked for, in ms: a run of keys is looked for at its ends. */
const REST = 60;

/** What is looked for, as it stands in the address. */
interface RecordFilter {
  readonly words: string;
  readonly course: string;
  readonly student: string;
  /** Days, as `2026-11-25`; both are in it. */
  readonly from: string;
  readonly until: string;
}

/** What was said is called as in a record. */
const SOURCES_SAID = Object.fromEntries(
  SAID_SOURCES.map((source) => [source, SAID[source].label]),
) as Record<SaidSource, string>;
const SOURCES: Readonly<Record<Found['source'], string>> = {
  page: 'Page',
  ...SOURCES_SAID,
  summary: 'Summary',
  until: 'Until next time',
};

/** Records that fill a window. */
const FIRST = 5;

/** All records: found by words, course, student and date. What is looked for stands in the address. */
@Component({
  selector: 'cua-records',
  imports: [
    DateField,
    ArchiveButton,
    Button,
    CourseAttendance,
    DeletionDialog,
    DeletionsDialog,
    FormsModule,
    ProblemMessage,
    RecordCard,
    RouterLink,
    LIST,
    EmptyState,
  ],
  templateUrl: './records.html',
  styleUrl: './records.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordsScreen {
  readonly words = input<string>();
  readonly course = input<string>();
  readonly student = input<string>();
  readonly from = input<string>();
  readonly until = input<string>();

  private readonly coursesApi = inject(CoursesApi);
  private readonly recordsApi = inject(RecordsApi);
  private readonly studentDataApi = inject(StudentDataApi);
  private readonly router = inject(Router);
  private frame = 0;
  /** What is wanted and doesn’t stand in the address yet. */
  private coming: Partial<RecordFilter> = {};
  private readonly wants = new Subject<void>();
  /** How many of what fits are there already, and more are wanted. */
  private readonly asks = new Subject<number>();
  protected readonly wish = computed<RecordFilter>(() => ({
    words: this.words() ?? '',
    course: this.course() ?? '',
    student: this.student() ?? '',
    from: this.from() ?? '',
    until: this.until() ?? '',
  }));
  protected readonly wishes = computed(() => Object.values(this.wish()).some((one) => one !== ''));
  protected readonly found = signal<readonly FoundRecord[] | null>(null);
  protected readonly papers = new PaperSource(inject(LocalFiles));
  /** How many of them are drawn: the first at once, the rest when those are seen. */
  private readonly most = signal(FIRST);
  protected readonly drawn = computed(() => (this.found() ?? []).slice(0, this.most()));
  protected readonly more = signal(false);
  protected readonly students = signal<readonly string[]>([]);
  /** The student who is chosen, as long as there is anything of them. */
  protected readonly known = computed(() =>
    this.students().find((name) => name === this.wish().student),
  );
  protected readonly courses = signal<readonly Pick<Course, 'id' | 'name'>[]>([]);
  protected readonly courseChoices = computed(() => [
    { id: '', name: 'all courses' },
    ...this.courses(),
  ]);
  protected readonly studentChoices = computed(() => [
    { name: '', label: 'all students' },
    ...this.students().map((name) => ({ name, label: name })),
  ]);
  /** Of the course that is chosen. */
  protected readonly attended = signal<readonly LessonAttended[]>([]);
  /** The student whose data is about to be deleted. */
  protected readonly deleting = signal<string | null>(null);
  protected readonly deletions = signal<readonly Deletion[]>([]);
  /** Whether reports of what was deleted are being read. */
  protected readonly reading = signal(false);
  protected readonly problem = signal<ProblemDetails | null>(null);

  constructor() {
    merge(toObservable(this.wish).pipe(map(() => 0)), this.asks)
      .pipe(
        // What was asked later is answered, and nothing else.
        switchMap((skip) => this.find(skip)),
        takeUntilDestroyed(),
      )
      .subscribe();
    toObservable(this.course)
      .pipe(
        switchMap((course) => this.attendance(course)),
        takeUntilDestroyed(),
      )
      .subscribe((attended) => this.attended.set(attended));
    this.wants
      .pipe(throttleTime(REST, undefined, { leading: true, trailing: true }), takeUntilDestroyed())
      .subscribe(() => this.go());
    void this.loadChoices();
    inject(DestroyRef).onDestroy(() => {
      cancelAnimationFrame(this.frame);
      this.papers.close();
    });
  }

  /** Something else is looked for. */
  protected want(change: Partial<RecordFilter>): void {
    this.coming = { ...this.coming, ...change };
    this.wants.next();
  }

  private go(): void {
    const wish = { ...this.wish(), ...this.coming };
    this.coming = {};
    const queryParams = Object.fromEntries(
      Object.entries(wish).map(([key, value]) => [key, value || null]),
    );
    void this.router.navigate([], { queryParams, replaceUrl: true });
  }

  protected clear(): void {
    this.want({ words: '', course: '', student: '', from: '', until: '' });
  }

  protected placeOf({ source, number }: Found): string {
    return number === null ? SOURCES[source] : `${SOURCES[source]} ${number}`;
  }

  /** @param skip how many of what fits are there already */
  protected look(skip = 0): void {
    this.asks.next(skip);
  }

  private find(skip: number): Observable<unknown> {
    this.problem.set(null);
    const { words, course, student, from, until } = this.wish();
    const query = {
      ...{ words: words || undefined, course: course || undefined, student: student || undefined },
      from: from ? dayOf(from, 0) : undefined,
      until: until ? dayOf(until, 1) : undefined,
      skip: skip || undefined,
    };
    return this.recordsApi.findRecords(query).pipe(
      tap((answer) => {
        if (skip === 0) this.drawFirst();
        this.found.update((before) => [...(skip > 0 ? (before ?? []) : []), ...answer.found]);
        this.more.set(answer.more);
      }),
      catchError((error: unknown) => this.failed(error)),
    );
  }

  private failed(error: unknown): Observable<never> {
    this.problem.set(problemOf(error));
    return EMPTY;
  }

  /** Somebody types: what fills the window comes first. */
  private drawFirst(): void {
    cancelAnimationFrame(this.frame);
    this.most.set(FIRST);
    // A frame for those, and the next for the others.
    this.frame = requestAnimationFrame(() => {
      this.frame = requestAnimationFrame(() => this.most.set(Infinity));
    });
  }

  protected async saveAttendance(): Promise<void> {
    try {
      const { blob, name } = await firstValueFrom(
        this.recordsApi.downloadAttendance(this.course()!, inShownZone()),
      );
      download(blob, name);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  private async loadChoices(): Promise<void> {
    try {
      const { students } = await firstValueFrom(this.recordsApi.listStudents());
      this.students.set(students);
      this.courses.set((await firstValueFrom(this.coursesApi.readToday())).courses);
      this.deletions.set((await firstValueFrom(this.studentDataApi.listDeletions())).deletions);
    } catch (error) {
      this.problem.set(problemOf(error));
    }
  }

  private attendance(course: string | undefined): Observable<readonly LessonAttended[]> {
    if (!course) return of([]);
    return this.recordsApi.listAttendance(course).pipe(
      map(({ lessons }) => lessons),
      catchError((error: unknown) => this.failed(error)),
      startWith([]),
    );
  }

  /** The sheet was closed. @param something whether anything is gone */
  protected deleted(something: boolean): void {
    this.deleting.set(null);
    if (!something) return;
    void this.loadChoices();
    this.want({ student: '' });
    this.look();
  }

  /** A student, for an address. */
  protected named(name: string): string {
    return new URLSearchParams({ name }).toString();
  }
}

/** When a day begins by the clock of this window, or the one `later` days after it, in ms since 1970. */
function dayOf(day: string, later: number): number {
  const [year, month, date] = day.split('-').map(Number);
  const at = new Date(Date.UTC(year!, month! - 1, date! + later));
  if (Number.isNaN(at.getTime())) return 0;
  return Math.max(0, momentOf(`${at.toISOString().slice(0, 10)}T00:00`, shownZone()));
}
