import { nameOf } from '@cuaderno/core/people';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  signal,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { CoursesApi } from '../../api/courses-api';
import { LessonsApi } from '../../api/lessons-api';
import { Attempt } from '../../api/attempt';
import type { Course, ListedRecord } from '../../api/shapes';
import { WaitingLateLines } from '../../records/late-lines/waiting-late-lines';
import { RecordCard } from '../../records/record-card/record-card';
import { LocalFiles } from '../../board/drawing/local-files';
import { PaperSource } from '../../board/drawing/paper-source';
import { Button } from '../../ui/button/button';
import {
  formatDate,
  formatDay,
  formatLength,
  formatPlaceOf,
  formatSpanIn,
  formatWhen,
  formatZone,
} from '../../ui/time/format-time';
import { shownZone, thisZone } from '../../ui/time/shown-zone';
import { Tip } from '../../ui/tip/tip';
import { CourseForm } from './course-form';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** For how long after a lesson it waits for its summary, in ms. */
const WAITS_MS = 14 * 24 * 3600_000;

/** The tutor's first screen: what comes next, the courses, the last records. */
@Component({
  selector: 'cua-today',
  imports: [Button, CourseForm, RecordCard, ProblemMessage, RouterLink, EmptyState, Tip],
  templateUrl: './today.html',
  styleUrl: './today.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TodayScreen {
  private readonly coursesApi = inject(CoursesApi);
  private readonly lessonsApi = inject(LessonsApi);
  private readonly router = inject(Router);
  protected readonly courses = signal<readonly Course[] | null>(null);
  protected readonly records = signal<readonly ListedRecord[]>([]);
  protected readonly papers = new PaperSource(inject(LocalFiles));
  /** Records of the last days of which nothing is said yet. */
  protected readonly unsummed = computed(() =>
    this.records().filter(
      ({ hasSummary, closedAt }) => !hasSummary && Date.now() - closedAt < WAITS_MS,
    ),
  );
  protected readonly attempt = new Attempt();
  protected readonly making = signal(false);
  protected readonly today = formatDay(Date.now());
  protected readonly say = {
    date: formatDate,
    length: formatLength,
    name: nameOf,
    when: formatWhen,
    zone: formatZone,
  };
  /** By the clock of this machine, where that isn't the one by which times are said here. */
  protected readonly here = (from: number, to: number): string =>
    thisZone() === shownZone()
      ? ''
      : ` · ${formatSpanIn(from, to, thisZone())} in ${formatPlaceOf(thisZone())}`;
  protected readonly late = inject(WaitingLateLines);

  protected readonly going = computed(
    () => this.courses()?.filter(({ retiredAt }) => retiredAt === null) ?? [],
  );
  protected readonly retired = computed(
    () => this.courses()?.filter(({ retiredAt }) => retiredAt !== null) ?? [],
  );
  protected readonly open = computed(() => this.courses()?.find(({ lesson }) => lesson) ?? null);
  protected readonly next = computed(
    () =>
      this.courses()
        ?.filter(({ nextAt }) => nextAt !== null)
        .sort((a, b) => a.nextAt! - b.nextAt!)[0] ?? null,
  );

  constructor() {
    inject(DestroyRef).onDestroy(() => this.papers.close());
    void this.load();
    void this.late.load();
  }

  protected async load(): Promise<void> {
    await this.attempt.make(async () => {
      const { courses, records } = await firstValueFrom(this.coursesApi.readToday());
      this.courses.set(courses);
      this.records.set(records);
    });
  }

  protected made(course: Course): void {
    void this.router.navigate(['/courses', course.id]);
  }

  /** On the board that the lesson before was on last. */
  protected async openLesson({ id }: Course): Promise<void> {
    await this.attempt.make(async () => {
      const wish = { on: 'last', title: formatDay(Date.now()) } as const;
      const { board } = await firstValueFrom(this.lessonsApi.openCourseLesson(id, wish));
      await this.router.navigate(['/boards', board]);
    });
  }
}
