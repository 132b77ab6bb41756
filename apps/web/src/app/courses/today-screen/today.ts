import { nameOf } from '@cuaderno/core/people';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { Account } from '../../api/account';
import { CoursesApi } from '../../api/courses-api';
import { LessonsApi } from '../../api/lessons-api';
import { Attempt } from '../../api/attempt';
import type { Course, RecordInfo } from '../../api/shapes';
import { WaitingLateLines } from '../../records/late-lines/waiting-late-lines';
import { MaterialsStore } from '../../materials/store/materials-store';
import { Button } from '../../ui/button/button';
import {
  formatDate,
  formatDay,
  formatLength,
  formatWhen,
  formatZone,
} from '../../ui/time/format-time';
import { Tip } from '../../ui/tip/tip';
import { CourseForm } from './course-form';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** The tutor's first screen: what comes next, the courses, the last records. */
@Component({
  selector: 'cua-today',
  imports: [Button, CourseForm, ProblemMessage, RouterLink, EmptyState, Tip],
  templateUrl: './today.html',
  styleUrl: './today.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TodayScreen {
  private readonly coursesApi = inject(CoursesApi);
  private readonly lessonsApi = inject(LessonsApi);
  private readonly account = inject(Account);
  private readonly router = inject(Router);
  private readonly materials = inject(MaterialsStore);
  protected readonly courses = signal<readonly Course[] | null>(null);
  protected readonly records = signal<readonly RecordInfo[]>([]);
  protected readonly name = signal('');
  protected readonly attempt = new Attempt();
  protected readonly making = signal(false);
  protected readonly zone = formatZone();
  protected readonly today = formatDay(Date.now());
  protected readonly say = {
    date: formatDate,
    length: formatLength,
    name: nameOf,
    when: formatWhen,
  };
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
    void this.load();
    void this.late.load();
  }

  protected async load(): Promise<void> {
    await this.attempt.make(async () => {
      const { courses, records } = await firstValueFrom(this.coursesApi.readToday());
      this.courses.set(courses);
      this.records.set(records);
      this.name.set((await this.account.load()).tutor?.name ?? '');
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

  protected async signOut(): Promise<void> {
    await this.attempt.make(async () => {
      await this.account.signOut();
      this.materials.forget();
      this.late.forget();
      await this.router.navigateByUrl('/sign-in');
    });
  }
}
